<script lang="ts">
  /** The window pane, edge on, and the wall that it is the opening of. */
  import Grip from './Grip.svelte'
  import type { Board } from '../../lib/board'
  import { moved, type Projection } from '../../lib/projection'
  import type { Pane } from '../../lib/types'
  let { board, view, pane }: { board: Board; view: Projection; pane: Pane } = $props()

  const place = (of: Pane) => [of.x, of.y, of.z] as const
  const [x, top] = $derived(view.at([pane.x + pane.width / 2, pane.y + pane.height / 2, pane.z]))
  /** From wall to wall and from floor to ceiling, the opening left out. */
  const wall = $derived.by(() => {
    const { room } = board.plan
    const ends: [number, number, number, number][] =
      view.view === 'side view'
        ? [
            [pane.x, 0, pane.x, pane.y - pane.height / 2],
            [pane.x, pane.y + pane.height / 2, pane.x, room.height],
          ]
        : [
            [room.x_min, 0, pane.x - pane.width / 2, 0],
            [pane.x + pane.width / 2, 0, room.x_max, 0],
          ]
    return ends.map(([x0, y0, x1, y1]) => `M${view.at([x0, y0, pane.z]).join(' ')}L${view.at([x1, y1, pane.z]).join(' ')}`).join('')
  })
  const [, low] = $derived(view.at([pane.x - pane.width / 2, pane.y - pane.height / 2, pane.z]))
</script>

{#if pane.in_wall}<path d={wall} class="hair" stroke-width="2" fill="none" />{/if}
<Grip
  {board}
  {view}
  thing="window"
  label="Window pane, {view.view}"
  place={place(pane)}
  move={(was, by) => {
    const [nx, ny, nz] = moved(view, place(was.window!), by)
    const now = { x: nx, y: ny, z: nz }
    return view.axes.map((axis) => ({ path: `window.${axis}`, value: now[axis] }))
  }}
>
  <path d="M{x - 2} {top}V{low}M{x + 2} {top}V{low}" class="drawn" class:pick={board.selected === 'window'} />
</Grip>
