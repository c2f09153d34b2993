<script lang="ts">
  /** A thing on a drawing that can be dragged, or taken hold of with Enter and moved with the arrow keys: 1 cm, with
      Shift 10 cm. While nothing is held the arrows go from one to the next. */
  import { draggable, type Move } from '../lib/drag'
  let {
    label,
    now,
    text,
    x,
    y,
    scale,
    reach = 13,
    selected = false,
    start = () => {},
    move,
    end,
    select,
    children,
  }: {
    label: string
    /** The main coordinate in metres, for those who hear it. */
    now: number
    text: string
    x: number
    y: number
    scale: number
    reach?: number
    selected?: boolean
    start?: () => void
    move: (by: Move) => void
    end: () => void
    select?: () => void
    children: import('svelte').Snippet
  } = $props()
</script>

<!-- svelte-ignore a11y_no_noninteractive_tabindex -->
<g
  class="handle"
  class:pick={selected}
  role="slider"
  tabindex="0"
  aria-label={label}
  aria-valuenow={now}
  aria-valuetext={text}
  use:draggable={{ scale: () => scale, start, move, end, select, held: select && (() => selected) }}
>
  <circle class="hit" cx={x} cy={y} r={reach} fill="transparent" stroke="transparent" />
  {@render children()}
</g>
