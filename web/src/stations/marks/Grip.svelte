<script lang="ts">
  /** A mark that can be taken hold of: it remembers the plan as it was when the drag began. */
  import Handle from '../../parts/Handle.svelte'
  import type { Board } from '../../lib/board'
  import type { Move } from '../../lib/drag'
  import { prefs } from '../../lib/prefs.svelte'
  import type { Projection } from '../../lib/projection'
  import type { Change, Plan, Thing } from '../../lib/types'
  import { showLength } from '../../lib/units'
  let {
    board,
    view,
    thing,
    label,
    place,
    now,
    text,
    axes = view.axes,
    reach,
    offset = 0,
    move,
    children,
  }: {
    board: Board
    view: Projection
    thing: Thing
    label: string
    /** Where it is, m. */
    place: readonly number[]
    /** For those who hear it: the coordinate that is told first, and all in words. Its distance where left out. */
    now?: number
    text?: string
    axes?: readonly ('x' | 'y' | 'z')[]
    reach?: number
    /** px to the right of the place where it is drawn. */
    offset?: number
    move: (was: Plan, by: Move) => Change[]
    children: import('svelte').Snippet
  } = $props()

  let was = $state.raw<Plan>()
  const [x, y] = $derived(view.at(place))
  const say = (metres: number) => showLength(metres, prefs.length)
  const where = $derived(
    [axes.includes('x') && `${say(place[0])} across`, axes.includes('y') && `height ${say(place[1])}`, `${say(place[2])} from the screen`]
      .filter(Boolean)
      .join(', '),
  )
</script>

<Handle
  {label}
  now={now ?? place[2]}
  text={text ?? where}
  x={x + offset}
  {y}
  scale={view.scale}
  {reach}
  selected={board.selected === thing}
  select={() => board.select(thing)}
  start={() => (was = board.plan)}
  move={(by) => board.change(move(was!, by))}
  end={board.settle}
>
  {@render children()}
</Handle>
