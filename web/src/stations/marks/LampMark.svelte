<script lang="ts">
  /** A lamp, or a window that daylight comes through: its face turned to where it aims, a line to there, its number; the aim can be pulled when it is chosen. */
  import Grip from './Grip.svelte'
  import type { Board } from '../../lib/board'
  import { apart, type Named } from '../../lib/lampNames'
  import { moved, type Projection } from '../../lib/projection'
  let { board, view, index }: { board: Board; view: Projection; index: number } = $props()

  const NEAR = 14
  /** px from the drawing's upper edge that a number needs. */
  const TOP = 12
  const lamp = $derived(board.plan.lights[index])
  const thing = $derived(`light:${lamp.id}` as const)
  const chosen = $derived(board.selected === thing)
  const on = $derived(lamp.on && lamp.dimmer > 0)
  const [x, y] = $derived(view.at(lamp.position))
  const [aimX, aimY] = $derived(view.at(lamp.aim))
  const half = $derived(Math.max(5, (view.face(lamp.fixture.emitter) * view.scale) / 2))
  const turn = $derived((Math.atan2(aimY - y, aimX - x) * 180) / Math.PI)
  /** px to its aim within which it hangs straight over it, as this view shows it. */
  const OVER = 6
  const overhead = $derived(Math.hypot(aimX - x, aimY - y) < OVER)
  /** Lamps that this view shows at one place have one label with all their numbers. */
  const same = $derived(
    board.plan.lights.flatMap((other, i) => {
      const [u, v] = view.at(other.position)
      return other.fixture.emitter.shape !== 'sun' && Math.abs(u - x) < NEAR && Math.abs(v - y) < NEAR ? [i] : []
    }),
  )
  /** On the floor behind the lamp, away from its light; from the side above it, where nobody stands before it. */
  function nameOf(i: number): Named {
    const one = board.plan.lights[i]
    // The sun is not drawn.
    const text = one.fixture.emitter.shape === 'sun' ? '' : `${i + 1} ${one.name}`
    const [u, v] = view.at(one.position)
    if (view.view === 'side view') {
      return { x: u, y: Math.max(TOP, v - Math.max(5, (view.face(one.fixture.emitter) * view.scale) / 2) - 5), anchor: 'middle', text }
    }
    const [toU, toV] = view.at(one.aim)
    const reach = Math.hypot(u - toU, v - toV)
    if (reach < OVER) return { x: u, y: v + Math.max(5, (view.face(one.fixture.emitter) * view.scale) / 2) + 13, anchor: 'middle', text }
    // Behind a window is its wall: its name stands in the room.
    const side = one.fixture.emitter.shape === 'window' ? -1 : 1
    return {
      x: u + side * ((u - toU) / reach) * 16,
      y: v + side * ((v - toV) / reach) * 20 + 4,
      anchor: u > toU + 0.3 * reach ? 'start' : 'middle',
      text,
    }
  }
  /** The camera's body, which no name may lie on: a lamp beside the lens has its own behind it. */
  const camera: Named = $derived.by(() => {
    const { x: across, y: up, z: ahead } = board.plan.camera
    const [u, v] = view.at([across, up, ahead])
    const turned = (view.turned(board.plan.camera) * Math.PI) / 180
    return { x: u + 13 * Math.cos(turned), y: v + 13 * Math.sin(turned) + 4, anchor: 'middle', text: 'camera' }
  })
  const names = $derived(board.plan.lights.slice(0, index + 1).map((_, i) => nameOf(i)))
  const label = $derived(view.named ? apart([camera, ...names])[index + 1] : nameOf(index))
</script>

<line class="hair" class:pick={chosen} x1={x} y1={y} x2={aimX} y2={aimY} stroke-dasharray={chosen ? '5 3' : '1 5'} />
{#if chosen}
  <Grip
    {board}
    {view}
    {thing}
    label="Aim of {lamp.name}, {view.view}"
    place={lamp.aim}
    move={(was, by) => [{ path: `lights[${index}].aim`, value: moved(view, was.lights[index].aim, by) }]}
  >
    <circle cx={aimX} cy={aimY} r="4" fill="var(--color-base-100)" class="drawn pick" />
    <path d="M{aimX - 8} {aimY}h16M{aimX} {aimY - 8}v16" class="drawn pick" />
  </Grip>
{/if}
<Grip
  {board}
  {view}
  {thing}
  label="{lamp.name}, {view.view}"
  place={lamp.position}
  move={(was, by) => [{ path: `lights[${index}].position`, value: moved(view, was.lights[index].position, by) }]}
>
  <g transform="translate({x} {y}) rotate({turn})">
    {#if lamp.fixture.emitter.shape === 'window'}
      <rect
        x="-3"
        y={-half}
        width="6"
        height={2 * half}
        fill={on ? 'var(--color-base-100)' : 'var(--line)'}
        class="drawn"
        class:pick={chosen}
      />
      <path d="M0 {-half}V{half}" class="drawn" class:pick={chosen} />
    {:else if overhead}
      <rect
        x={-half}
        y={-half}
        width={2 * half}
        height={2 * half}
        rx="2"
        fill={on ? 'var(--figure)' : 'var(--color-base-100)'}
        class="drawn"
        class:pick={chosen}
      />
    {:else}
      <path d="M0 {-half}V{half}" stroke-width="3" class="drawn" class:pick={chosen} stroke-opacity={on ? 1 : 0.5} />
      <path
        d="M-7 {-half * 0.55}L-1 {-half}V{half}L-7 {half * 0.55}Z"
        fill={on ? 'var(--figure)' : 'var(--color-base-100)'}
        class="drawn"
        class:pick={chosen}
      />
    {/if}
  </g>
</Grip>
{#if view.named || same[0] === index}
  <text
    pointer-events="none"
    x={label.x}
    y={label.y}
    text-anchor={label.anchor}
    class:strong={chosen}
    paint-order="stroke"
    stroke="var(--color-base-100)"
    stroke-width="3"
    stroke-opacity="0.7"
  >
    {view.named ? label.text : same.map((i) => i + 1).join(' · ')}
  </text>
{/if}
