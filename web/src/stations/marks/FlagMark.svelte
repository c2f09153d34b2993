<script lang="ts">
  /** A black cloth or a white board. */
  import Grip from './Grip.svelte'
  import type { Board } from '../../lib/board'
  import { round } from '../../lib/changes'
  import type { Projection } from '../../lib/projection'
  import { path } from '../../lib/sheet'
  let { board, view, index }: { board: Board; view: Projection; index: number } = $props()

  const flag = $derived(board.plan.flags[index])
  const thing = $derived(`flag:${flag.id}` as const)
  const middle = $derived([0, 1, 2].map((axis) => flag.corners.reduce((sum, corner) => sum + corner[axis], 0) / 4))
  const outline = $derived(path(flag.corners.map(view.at), true))
  const dark = $derived(flag.reflectance[0] < 0.4)
</script>

<Grip
  {board}
  {view}
  {thing}
  label="Cloth {flag.id}, {view.view}"
  place={middle}
  move={(was, by) => {
    const corners = was.flags[index].corners
    const [x, y, z] = view.shift(by)
    const up = Math.max(y, -Math.min(...corners.map((corner) => corner[1])))
    return [{ path: `flags[${index}].corners`, value: corners.map(([a, b, c]) => [round(a + x), round(b + up), round(c + z)]) }]
  }}
>
  <path d={outline} stroke-width="5" stroke={dark ? 'black' : 'white'} fill={dark ? 'black' : 'white'} fill-opacity="0.35" />
  <path d={outline} class="drawn" class:pick={board.selected === thing} fill="none" />
</Grip>
