<script lang="ts">
  /** A small square on an edge that is pulled: a side of the screen, the end of the floor run, the reach. */
  import Grip from './Grip.svelte'
  import type { Board } from '../../lib/board'
  import type { Move } from '../../lib/drag'
  import type { Projection } from '../../lib/projection'
  import type { Change, Plan, Thing } from '../../lib/types'
  let {
    size,
    ...grip
  }: {
    /** px across and up. */
    size: readonly [number, number]
    board: Board
    view: Projection
    thing: Thing
    label: string
    place: readonly number[]
    now: number
    text: string
    reach?: number
    move: (was: Plan, by: Move) => Change[]
  } = $props()
  const [x, y] = $derived(grip.view.at(grip.place))
  const [w, h] = $derived(size)
</script>

<Grip {...grip}>
  <rect
    x={x - w / 2}
    y={y - h / 2}
    width={w}
    height={h}
    fill="var(--color-base-100)"
    class="drawn"
    class:pick={grip.board.selected === grip.thing}
  />
</Grip>
