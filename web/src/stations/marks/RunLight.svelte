<script lang="ts">
  /** The light on the floor run from above, as deviation from the wanted level. */
  import { cellPicture } from '../../lib/cellPicture'
  import { deviationInk, reachFor } from '../../lib/deviation'
  import type { Evaluation } from '../../lib/types'
  import type { Sheet } from '../../lib/sheet'
  let { map, sheet }: { map: Evaluation['map']; sheet: Sheet } = $props()

  const run = $derived(map.beside.find((one) => one.name === 'floor run'))
  /** The same reach as in the frame, so that one colour means one thing. */
  const reach = $derived(
    reachFor([map, ...map.beside].flatMap((one) => one.deviation.flatMap((row, r) => row.filter((_, c) => one.judged[r][c])))),
  )
  const deep = $derived(run && run.y.length > 1 ? run.y[1] - run.y[0] : 0.1)
  const across = $derived(run && run.x.length > 1 ? run.x[1] - run.x[0] : 0.1)
  /** Columns away from the screen; rows from right to left, as the floor is drawn. */
  const picture = $derived(
    run
      ? cellPicture(run.y.length, run.x.length, (c, r) => {
          const at = run.x.length - 1 - r
          return run.judged[c][at] ? deviationInk(run.deviation[c][at], reach) : 0
        })
      : '',
  )
</script>

{#if run && picture}
  <image
    aria-hidden="true"
    pointer-events="none"
    opacity="0.85"
    href={picture}
    preserveAspectRatio="none"
    x={sheet.z(run.y[0] - deep / 2)}
    y={sheet.x(run.x[run.x.length - 1] + across / 2)}
    width={deep * run.y.length * sheet.scale}
    height={across * run.x.length * sheet.scale}
  />
{/if}
