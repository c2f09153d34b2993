<script lang="ts">
  /** The true side section: screen, needed part, figure, camera and lamps, all movable in z and height. */
  import Handle from '../parts/Handle.svelte'
  import { round } from '../lib/changes'
  import { prefs } from '../lib/prefs.svelte'
  import { path, type Sheet } from '../lib/sheet'
  import type { Change, Evaluation, Plan, Thing } from '../lib/types'
  import { showLength } from '../lib/units'
  let {
    plan,
    evaluation,
    ghost,
    sheet,
    selected,
    select,
    change,
    settle,
  }: {
    plan: Plan
    evaluation: Evaluation | null
    ghost: Plan | null
    sheet: Sheet
    selected: Thing | null
    select: (thing: Thing) => void
    change: (changes: Change[]) => void
    settle: () => void
  } = $props()

  const { z, y } = $derived(sheet)
  const say = (metres: number) => showLength(metres, prefs.length)
  let from = $state.raw<Plan>()
  const hold = () => (from = plan)

  const needed = $derived(evaluation?.check.coverage.needed ?? null)
  const hue = $derived(`var(--screen-${plan.screen.hue})`)
  const field = $derived(evaluation?.field_on_screen ?? null)
  const screenTop = $derived(plan.screen.bottom + plan.screen.height)

  /** The figure from the side, in shares of its height: an upright outline. */
  const SIDE = [
    [-0.05, 0],
    [-0.06, 0.02],
    [0.09, 0.02],
    [0.09, 0],
    [0.03, 0.03],
    [0.055, 0.27],
    [0.065, 0.48],
    [0.06, 0.62],
    [0.075, 0.76],
    [0.05, 0.83],
    [0.03, 0.86],
    [0.055, 0.885],
    [0.066, 0.915],
    [0.055, 0.965],
    [0.0, 1.0],
    [-0.06, 0.965],
    [-0.072, 0.92],
    [-0.045, 0.87],
    [-0.06, 0.82],
    [-0.075, 0.72],
    [-0.06, 0.6],
    [-0.085, 0.5],
    [-0.06, 0.27],
    [-0.045, 0.03],
  ]
  const figure = (of: Plan) =>
    of.subject
      ? path(
          SIDE.map(([a, b]) => [z(of.subject!.z + a * of.subject!.height), y(b * of.subject!.height)]),
          true,
        )
      : ''
</script>

<!-- Room: floor, walls, ceiling -->
<path
  class="drawn"
  stroke-opacity="0.6"
  d={path(
    [
      [z(plan.room.z_min), y(plan.room.height)],
      [z(plan.room.z_max), y(plan.room.height)],
      [z(plan.room.z_max), y(0)],
      [z(plan.room.z_min), y(0)],
    ],
    plan.room.kind === 'interior',
  )}
/>
<line class="drawn" x1={z(sheet.extent.z0)} x2={z(sheet.extent.z1)} y1={y(0)} y2={y(0)} />

<!-- The lens' field and the rays to the needed part -->
{#if field}
  <path
    class="hair"
    d={path([
      [z(0), y(field[3])],
      [z(plan.camera.z), y(plan.camera.y)],
      [z(0), y(field[1])],
    ])}
    stroke-dasharray="1 4"
  />
{/if}
{#if needed}
  <path
    class="sight"
    d={path([
      [z(0), y(needed[3])],
      [z(plan.camera.z), y(plan.camera.y)],
      [z(0), y(Math.max(needed[1], 0))],
    ])}
    stroke-dasharray="6 3"
  />
{/if}

<!-- Screen -->
<line x1={z(0)} x2={z(0)} y1={y(plan.screen.bottom)} y2={y(screenTop)} stroke={hue} stroke-width="5" />
{#if plan.screen.floor_run > 0}
  <line x1={z(0)} x2={z(plan.screen.floor_run)} y1={y(0) - 1.5} y2={y(0) - 1.5} stroke={hue} stroke-width="4" />
{/if}
{#if needed}
  {@const top = y(needed[3])}
  {@const low = y(Math.max(needed[1], 0))}
  {@const short = evaluation?.check.coverage.covered === false}
  <path
    d={path([
      [z(0) - 8, top],
      [z(0) - 13, top],
      [z(0) - 13, low],
      [z(0) - 8, low],
    ])}
    fill="none"
    stroke={short ? 'var(--color-primary)' : 'var(--color-base-content)'}
    stroke-width={short ? 2 : 1}
  />
{/if}
<Handle
  label="Top edge of the screen"
  now={plan.screen.height}
  text="height {say(plan.screen.height)}"
  x={z(0)}
  y={y(screenTop)}
  scale={sheet.scale}
  selected={selected === 'screen'}
  select={() => select('screen')}
  start={hold}
  move={({ dy }) => change([{ path: 'screen.height', value: round(Math.min(50, Math.max(0.1, from!.screen.height + dy))) }])}
  end={settle}
>
  <rect
    x={z(0) - 5}
    y={y(screenTop) - 3}
    width="10"
    height="6"
    fill="var(--color-base-100)"
    class="drawn"
    class:pick={selected === 'screen'}
  />
</Handle>

<!-- Cloths, boards, the window pane -->
<g aria-hidden="true" pointer-events="none">
  {#each plan.flags as flag (flag.id)}
    <path
      d={path(
        flag.corners.map((c) => [z(c[2]), y(c[1])]),
        true,
      )}
      fill={flag.reflectance[0] < 0.4 ? 'black' : 'white'}
      fill-opacity="0.35"
      class="hair"
      class:pick={selected === `flag:${flag.id}`}
    />
  {/each}
  {#if plan.window}
    <path
      d="M{z(plan.window.z) - 2} {y(plan.window.y - plan.window.height / 2)}V{y(plan.window.y + plan.window.height / 2)}M{z(plan.window.z) +
        2} {y(plan.window.y - plan.window.height / 2)}V{y(plan.window.y + plan.window.height / 2)}"
      class="drawn"
      class:pick={selected === 'window'}
    />
  {/if}
</g>

<!-- Figure and its reach -->
{#if plan.subject}
  {@const s = plan.subject}
  {@const e = s.envelope}
  {@const [low, high] = evaluation?.action_heights ?? [0, s.height]}
  <rect
    class="hair"
    x={z(s.z - e.back)}
    y={y(high)}
    width={(e.back + e.front) * sheet.scale}
    height={(high - low) * sheet.scale}
    stroke-dasharray="3 3"
  />
  {#if selected === 'subject'}
    <Handle
      label="Reach of the action, above the head"
      now={e.up}
      text={say(e.up)}
      x={z(s.z)}
      y={y(high)}
      reach={9}
      scale={sheet.scale}
      selected
      start={hold}
      move={({ dy }) => change([{ path: 'subject.envelope.up', value: round(Math.min(20, Math.max(0, from!.subject!.envelope.up + dy))) }])}
      end={settle}
    >
      <rect x={z(s.z) - 3} y={y(high) - 3} width="6" height="6" fill="var(--color-base-100)" class="drawn pick" />
    </Handle>
  {/if}
  <Handle
    label="Subject, side view"
    now={s.z}
    text="{say(s.z)} from the screen"
    x={z(s.z)}
    y={y(s.height * 0.6)}
    reach={22}
    scale={sheet.scale}
    selected={selected === 'subject'}
    select={() => select('subject')}
    start={hold}
    move={({ dx }) => change([{ path: 'subject.z', value: round(from!.subject!.z + dx) }])}
    end={settle}
  >
    <path d={figure(plan)} fill="var(--figure)" fill-opacity="0.55" class="drawn" class:pick={selected === 'subject'} />
  </Handle>
{/if}

<!-- Lamps -->
{#each plan.lights as lamp, i (lamp.id)}
  {#if lamp.fixture.emitter.shape !== 'sun'}
    {@const [, py, pz] = lamp.position}
    {@const on = lamp.on && lamp.dimmer > 0}
    <Handle
      label="{lamp.name}, side view"
      now={pz}
      text="height {say(py)}, {say(pz)} from the screen"
      x={z(pz)}
      y={y(py)}
      scale={sheet.scale}
      selected={selected === `light:${lamp.id}`}
      select={() => select(`light:${lamp.id}`)}
      start={hold}
      move={({ dx, dy }) => {
        const [x0, y0, z0] = from!.lights[i].position
        change([{ path: `lights[${i}].position`, value: [x0, round(Math.max(0, y0 + dy)), round(z0 + dx)] }])
      }}
      end={settle}
    >
      <circle
        cx={z(pz)}
        cy={y(py)}
        r="5.5"
        fill={on ? 'var(--color-base-content)' : 'var(--color-base-100)'}
        class="drawn"
        class:pick={selected === `light:${lamp.id}`}
      />
    </Handle>
    <text pointer-events="none" x={z(pz)} y={y(py) - 9} text-anchor="middle" class:strong={selected === `light:${lamp.id}`}>{i + 1}</text>
  {/if}
{/each}

<!-- Camera -->
<Handle
  label="Camera, side view"
  now={plan.camera.z}
  text="height {say(plan.camera.y)}, {say(plan.camera.z)} from the screen"
  x={z(plan.camera.z) + 8}
  y={y(plan.camera.y)}
  reach={18}
  scale={sheet.scale}
  selected={selected === 'camera'}
  select={() => select('camera')}
  start={hold}
  move={({ dx, dy }) =>
    change([
      { path: 'camera.z', value: round(from!.camera.z + dx) },
      { path: 'camera.y', value: round(Math.max(0, from!.camera.y + dy)) },
    ])}
  end={settle}
>
  <g transform="translate({z(plan.camera.z)} {y(plan.camera.y)}) rotate({plan.camera.tilt})">
    <path d="M0 -5 L7 -5 M0 5 L7 5 M0 -5 L0 5" class="drawn" class:pick={selected === 'camera'} />
    <rect x="7" y="-7.5" width="16" height="15" fill="var(--color-base-100)" class="drawn" class:pick={selected === 'camera'} />
  </g>
</Handle>

<!-- A remedy being tried -->
{#if ghost}
  <g class="pick" stroke-dasharray="4 3" aria-hidden="true" pointer-events="none">
    {#if ghost.screen.height !== plan.screen.height || ghost.screen.bottom !== plan.screen.bottom}
      <line x1={z(0) + 6} x2={z(0) + 6} y1={y(ghost.screen.bottom)} y2={y(ghost.screen.bottom + ghost.screen.height)} stroke-width="2" />
    {/if}
    {#if ghost.screen.floor_run !== plan.screen.floor_run}
      <line x1={z(0)} x2={z(ghost.screen.floor_run)} y1={y(0) - 6} y2={y(0) - 6} stroke-width="2" />
    {/if}
    {#if ghost.subject && ghost.subject.z !== plan.subject?.z}<path d={figure(ghost)} fill="none" stroke-width="1.5" />{/if}
    {#if ghost.camera.z !== plan.camera.z || ghost.camera.y !== plan.camera.y}
      <rect x={z(ghost.camera.z) + 7} y={y(ghost.camera.y) - 7.5} width="16" height="15" fill="none" stroke-width="1.5" />
    {/if}
    {#each ghost.lights as lamp, i (lamp.id)}
      {@const was = plan.lights[i]?.position}
      {#if was && was.some((v, k) => v !== lamp.position[k])}
        <line x1={z(was[2])} y1={y(was[1])} x2={z(lamp.position[2])} y2={y(lamp.position[1])} />
        <circle cx={z(lamp.position[2])} cy={y(lamp.position[1])} r="5.5" fill="none" stroke-width="1.5" />
      {/if}
    {/each}
  </g>
{/if}
