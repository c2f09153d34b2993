<script lang="ts">
  /** The window pane, edge on. */
  import Grip from './Grip.svelte'
  import type { Board } from '../../lib/board'
  import { moved, type Projection } from '../../lib/projection'
  import type { Pane } from '../../lib/types'
  let { board, view, pane }: { board: Board; view: Projection; pane: Pane } = $props()

  const place = (of: Pane) => [of.x, of.y, of.z] as const
  const [x, top] = $derived(view.at([pane.x + pane.width / 2, pane.y + pane.height / 2, pane.z]))
  const [, low] = $derived(view.at([pane.x - pane.width / 2, pane.y - pane.height / 2, pane.z]))
</script>

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
