<script lang="ts">
  /** The floor from above: room, screen, reach of the action, camera with its field, lamps with aims. */
  import SetPieces from './SetPieces.svelte'
  import Handle from '../parts/Handle.svelte'
  import { round } from '../lib/changes'
  import type { Move } from '../lib/drag'
  import { prefs } from '../lib/prefs.svelte'
  import { path, type Sheet } from '../lib/sheet'
  import type { Change, Evaluation, Light, Plan, Thing } from '../lib/types'
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

  const id = $props.id()
  const { z, x } = $derived(sheet)
  const say = (metres: number) => showLength(metres, prefs.length)
  let from = $state.raw<Plan>()
  const hold = () => (from = plan)

  const hue = $derived(`var(--screen-${plan.screen.hue})`)
  const left = $derived(plan.screen.x_centre - plan.screen.width / 2)
  const right = $derived(plan.screen.x_centre + plan.screen.width / 2)
  const field = $derived(evaluation?.field_on_screen ?? null)
  const needed = $derived(evaluation?.check.coverage.needed ?? null)

  function edge(side: -1 | 1, dy: number) {
    const was = from!.screen
    const width = Math.min(50, Math.max(0.1, was.width + side * dy))
    change([
      { path: 'screen.width', value: round(width) },
      { path: 'screen.x_centre', value: round(was.x_centre + (side * (width - was.width)) / 2, 3) },
    ])
  }
  /** A wedge of 2 m on the floor, to where half of the lamp's strength is left: the core's angles. */
  function beam({ position: [px, , pz], aim: [ax, , az] }: Light, [left, right]: readonly number[]): string {
    const to = Math.atan2(ax - px, az - pz)
    const arc = Array.from({ length: 17 }, (_, i) => to + ((i < 8 ? left : right) * (1 - i / 8) * Math.PI) / 180)
    return path([[z(pz), x(px)], ...arc.map((a) => [z(pz + 2 * Math.cos(a)), x(px + 2 * Math.sin(a))])], true)
  }
  const turn = (ax: number, az: number, bx: number, bz: number) => (Math.atan2(-(bx - ax), bz - az) * 180) / Math.PI
</script>

<!-- Room -->
{#if plan.room.kind === 'interior'}
  <rect
    class="drawn"
    stroke-opacity="0.6"
    x={z(plan.room.z_min)}
    y={x(plan.room.x_max)}
    width={(plan.room.z_max - plan.room.z_min) * sheet.scale}
    height={(plan.room.x_max - plan.room.x_min) * sheet.scale}
  />
{/if}
<line class="hair" x1={z(sheet.extent.z0)} x2={z(sheet.extent.z1)} y1={x(0)} y2={x(0)} stroke-dasharray="8 3 1 3" />

<!-- Field of view, rays to the needed part -->
{#if field}
  <path
    class="hair"
    d={path([
      [z(0), x(field[0])],
      [z(plan.camera.z), x(plan.camera.x)],
      [z(0), x(field[2])],
    ])}
    stroke-dasharray="1 4"
  />
{/if}
{#if needed}
  <path
    class="sight"
    d={path([
      [z(0), x(needed[0])],
      [z(plan.camera.z), x(plan.camera.x)],
      [z(0), x(needed[2])],
    ])}
    stroke-dasharray="6 3"
  />
{/if}

<!-- Screen, floor run, wings -->
{#if plan.screen.floor_run > 0}
  <rect
    x={z(0)}
    y={x(right)}
    width={plan.screen.floor_run * sheet.scale}
    height={plan.screen.width * sheet.scale}
    fill={hue}
    fill-opacity="0.28"
  />
{/if}
<line x1={z(0)} x2={z(0)} y1={x(left)} y2={x(right)} stroke={hue} stroke-width="5" />
{#if plan.screen.wing_left > 0}<line x1={z(0)} x2={z(plan.screen.wing_left)} y1={x(left)} y2={x(left)} stroke={hue} stroke-width="4" />{/if}
{#if plan.screen.wing_right > 0}<line
    x1={z(0)}
    x2={z(plan.screen.wing_right)}
    y1={x(right)}
    y2={x(right)}
    stroke={hue}
    stroke-width="4"
  />{/if}
{#if needed}
  {@const short = evaluation?.check.coverage.covered === false}
  <path
    d={path([
      [z(0) - 8, x(needed[0])],
      [z(0) - 13, x(needed[0])],
      [z(0) - 13, x(needed[2])],
      [z(0) - 8, x(needed[2])],
    ])}
    fill="none"
    stroke={short ? 'var(--color-primary)' : 'var(--color-base-content)'}
    stroke-width={short ? 2 : 1}
  />
{/if}
{#each [{ side: -1 as const, at: left, name: 'Left' }, { side: 1 as const, at: right, name: 'Right' }] as edgeOf (edgeOf.side)}
  <Handle
    label="{edgeOf.name} edge of the screen"
    now={edgeOf.at}
    text="{say(edgeOf.at)}, width {say(plan.screen.width)}"
    x={z(0)}
    y={x(edgeOf.at)}
    scale={sheet.scale}
    selected={selected === 'screen'}
    select={() => select('screen')}
    start={hold}
    move={({ dy }) => edge(edgeOf.side, dy)}
    end={settle}
  >
    <rect
      x={z(0) - 5}
      y={x(edgeOf.at) - 3}
      width="10"
      height="6"
      fill="var(--color-base-100)"
      class="drawn"
      class:pick={selected === 'screen'}
    />
  </Handle>
{/each}
{#if plan.screen.floor_run > 0}
  <Handle
    label="End of the floor run"
    now={plan.screen.floor_run}
    text={say(plan.screen.floor_run)}
    x={z(plan.screen.floor_run)}
    y={x(plan.screen.x_centre - plan.screen.width / 4)}
    scale={sheet.scale}
    selected={selected === 'screen'}
    select={() => select('screen')}
    start={hold}
    move={({ dx }) => change([{ path: 'screen.floor_run', value: round(Math.min(20, Math.max(0, from!.screen.floor_run + dx))) }])}
    end={settle}
  >
    <rect
      x={z(plan.screen.floor_run) - 3}
      y={x(plan.screen.x_centre - plan.screen.width / 4) - 6}
      width="6"
      height="12"
      fill="var(--color-base-100)"
      class="drawn"
      class:pick={selected === 'screen'}
    />
  </Handle>
{/if}

<!-- Beams, to where half the intensity is left -->
<clipPath id="{id}-room">
  <rect
    x={z(sheet.extent.z0)}
    y={x(sheet.extent.x1)}
    width={(sheet.extent.z1 - sheet.extent.z0) * sheet.scale}
    height={(sheet.extent.x1 - sheet.extent.x0) * sheet.scale}
  />
</clipPath>
<g clip-path="url(#{id}-room)">
  {#each plan.lights as lamp (lamp.id)}
    {@const width = evaluation?.lamps.find((one) => one.id === lamp.id)?.beam}
    {#if width && lamp.on && lamp.dimmer > 0}
      <path d={beam(lamp, width)} fill="var(--color-base-content)" fill-opacity={0.03 + 0.05 * lamp.dimmer} />
    {/if}
  {/each}
</g>

<SetPieces {plan} {evaluation} {sheet} {selected} {select} {change} {settle} />

<!-- Lamps -->
{#each plan.lights as lamp, i (lamp.id)}
  {#if lamp.fixture.emitter.shape !== 'sun'}
    {@const [px, , pz] = lamp.position}
    {@const [ax, , az] = lamp.aim}
    {@const away = Math.hypot(px - ax, pz - az) || 1}
    {@const chosen = selected === `light:${lamp.id}`}
    {@const on = lamp.on && lamp.dimmer > 0}
    {@const half = Math.max(5, ((lamp.fixture.emitter.shape === 'rect' ? lamp.fixture.emitter.width : 0.3) * sheet.scale) / 2)}
    <line class="hair" class:pick={chosen} x1={z(pz)} y1={x(px)} x2={z(az)} y2={x(ax)} stroke-dasharray={chosen ? '5 3' : '1 5'} />
    {#if chosen}
      <Handle
        label="Aim of {lamp.name}"
        now={az}
        text="{say(ax)} across, {say(az)} from the screen"
        x={z(az)}
        y={x(ax)}
        scale={sheet.scale}
        selected
        start={hold}
        move={({ dx, dy }) => {
          const [x0, y0, z0] = from!.lights[i].aim
          change([{ path: `lights[${i}].aim`, value: [round(x0 + dy), y0, round(z0 + dx)] }])
        }}
        end={settle}
      >
        <circle cx={z(az)} cy={x(ax)} r="4" fill="var(--color-base-100)" class="drawn pick" />
        <path d="M{z(az) - 8} {x(ax)}h16M{z(az)} {x(ax) - 8}v16" class="drawn pick" />
      </Handle>
    {/if}
    <Handle
      label="{lamp.name}, from above"
      now={pz}
      text="{say(px)} across, {say(pz)} from the screen"
      x={z(pz)}
      y={x(px)}
      scale={sheet.scale}
      selected={chosen}
      select={() => select(`light:${lamp.id}`)}
      start={hold}
      move={({ dx, dy }) => {
        const [x0, y0, z0] = from!.lights[i].position
        change([{ path: `lights[${i}].position`, value: [round(x0 + dy), y0, round(z0 + dx)] }])
      }}
      end={settle}
    >
      <g transform="translate({z(pz)} {x(px)}) rotate({turn(px, pz, ax, az)})">
        <path d="M0 {-half}V{half}" stroke-width="3" class="drawn" class:pick={chosen} stroke-opacity={on ? 1 : 0.5} />
        <path
          d="M-7 {-half * 0.55}L-1 {-half}V{half}L-7 {half * 0.55}Z"
          fill={on ? 'var(--figure)' : 'var(--color-base-100)'}
          class="drawn"
          class:pick={chosen}
        />
      </g>
    </Handle>
    <text
      pointer-events="none"
      x={z(pz) + ((pz - az) / away) * 16}
      y={x(px) - ((px - ax) / away) * 20 + 4}
      text-anchor={pz > az + 0.3 * away ? 'start' : 'middle'}
      class:strong={chosen}
    >
      {i + 1}{sheet.scale > 34 ? ` ${lamp.name}` : ''}
    </text>
  {/if}
{/each}

<!-- Figure and its reach -->
{#if plan.subject}
  {@const s = plan.subject}
  {@const e = s.envelope}
  <rect
    class="hair"
    x={z(s.z - e.back)}
    y={x(s.x + e.right)}
    width={(e.back + e.front) * sheet.scale}
    height={(e.left + e.right) * sheet.scale}
    stroke-dasharray="3 3"
  />
  {#if selected === 'subject'}
    {#each [{ side: 'left', px: z(s.z), py: x(s.x - e.left), of: (m: Move) => from!.subject!.envelope.left - m.dy }, { side: 'right', px: z(s.z), py: x(s.x + e.right), of: (m: Move) => from!.subject!.envelope.right + m.dy }, { side: 'front', px: z(s.z + e.front), py: x(s.x), of: (m: Move) => from!.subject!.envelope.front + m.dx }, { side: 'back', px: z(s.z - e.back), py: x(s.x), of: (m: Move) => from!.subject!.envelope.back - m.dx }] as const as reach (reach.side)}
      <Handle
        label="Reach of the action, {reach.side}"
        now={e[reach.side]}
        text={say(e[reach.side])}
        x={reach.px}
        y={reach.py}
        reach={9}
        scale={sheet.scale}
        selected
        start={hold}
        move={(by) => change([{ path: `subject.envelope.${reach.side}`, value: round(Math.min(20, Math.max(0, reach.of(by)))) }])}
        end={settle}
      >
        <rect x={reach.px - 3} y={reach.py - 3} width="6" height="6" fill="var(--color-base-100)" class="drawn pick" />
      </Handle>
    {/each}
  {/if}
  <Handle
    label="Subject, from above"
    now={s.z}
    text="{say(s.x)} across, {say(s.z)} from the screen"
    x={z(s.z)}
    y={x(s.x)}
    reach={18}
    scale={sheet.scale}
    selected={selected === 'subject'}
    select={() => select('subject')}
    start={hold}
    move={({ dx, dy }) =>
      change([
        { path: 'subject.z', value: round(from!.subject!.z + dx) },
        { path: 'subject.x', value: round(from!.subject!.x + dy) },
      ])}
    end={settle}
  >
    <ellipse
      cx={z(s.z)}
      cy={x(s.x)}
      rx={0.11 * s.height * sheet.scale * 0.6}
      ry={0.13 * s.height * sheet.scale}
      fill="var(--figure)"
      fill-opacity="0.55"
      class="drawn"
      class:pick={selected === 'subject'}
    />
    <circle
      cx={z(s.z)}
      cy={x(s.x)}
      r={0.06 * s.height * sheet.scale}
      fill="var(--figure)"
      class="drawn"
      class:pick={selected === 'subject'}
    />
  </Handle>
{/if}

<!-- Camera -->
<Handle
  label="Camera, from above"
  now={plan.camera.z}
  text="{say(plan.camera.x)} across, {say(plan.camera.z)} from the screen"
  x={z(plan.camera.z) + 8}
  y={x(plan.camera.x)}
  reach={18}
  scale={sheet.scale}
  selected={selected === 'camera'}
  select={() => select('camera')}
  start={hold}
  move={({ dx, dy }) =>
    change([
      { path: 'camera.z', value: round(from!.camera.z + dx) },
      { path: 'camera.x', value: round(from!.camera.x + dy) },
    ])}
  end={settle}
>
  <g transform="translate({z(plan.camera.z)} {x(plan.camera.x)}) rotate({plan.camera.pan})">
    <path d="M0 -6V6M0 -5L8 -3M0 5L8 3" class="drawn" class:pick={selected === 'camera'} />
    <rect x="8" y="-7" width="17" height="14" fill="var(--color-base-100)" class="drawn" class:pick={selected === 'camera'} />
  </g>
</Handle>

<!-- A remedy being tried -->
{#if ghost}
  <g class="pick" stroke-dasharray="4 3" aria-hidden="true" pointer-events="none" fill="none" stroke-width="1.5">
    {#if ghost.screen.width !== plan.screen.width || ghost.screen.x_centre !== plan.screen.x_centre}
      <line
        x1={z(0) + 6}
        x2={z(0) + 6}
        y1={x(ghost.screen.x_centre - ghost.screen.width / 2)}
        y2={x(ghost.screen.x_centre + ghost.screen.width / 2)}
        stroke-width="2"
      />
    {/if}
    {#if ghost.screen.floor_run !== plan.screen.floor_run}
      <rect
        x={z(0)}
        y={x(ghost.screen.x_centre + ghost.screen.width / 2)}
        width={ghost.screen.floor_run * sheet.scale}
        height={ghost.screen.width * sheet.scale}
      />
    {/if}
    {#if ghost.subject && plan.subject && (ghost.subject.z !== plan.subject.z || ghost.subject.x !== plan.subject.x)}
      <circle cx={z(ghost.subject.z)} cy={x(ghost.subject.x)} r={0.11 * ghost.subject.height * sheet.scale} />
    {/if}
    {#if ghost.camera.z !== plan.camera.z || ghost.camera.x !== plan.camera.x}
      <rect x={z(ghost.camera.z) + 8} y={x(ghost.camera.x) - 7} width="17" height="14" />
    {/if}
    {#each ghost.flags.filter((f) => !plan.flags.some((p) => p.id === f.id)) as flag (flag.id)}
      <path
        d={path(
          flag.corners.map((c) => [z(c[2]), x(c[0])]),
          true,
        )}
        stroke-width="2.5"
      />
    {/each}
    {#each ghost.lights as lamp, i (lamp.id)}
      {@const was = plan.lights[i]}
      {#if was && (was.position.some((v, k) => v !== lamp.position[k]) || was.aim.some((v, k) => v !== lamp.aim[k]))}
        <line x1={z(was.position[2])} y1={x(was.position[0])} x2={z(lamp.position[2])} y2={x(lamp.position[0])} />
        <line x1={z(lamp.position[2])} y1={x(lamp.position[0])} x2={z(lamp.aim[2])} y2={x(lamp.aim[0])} stroke-opacity="0.5" />
        <circle cx={z(lamp.position[2])} cy={x(lamp.position[0])} r="8" />
      {/if}
    {/each}
  </g>
{/if}
