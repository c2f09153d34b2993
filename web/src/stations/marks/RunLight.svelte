<script lang="ts">
  /** The light on the floor run from above, as deviation from the wanted level. */
  import { deviationColour, reachFor } from '../../lib/deviation'
  import type { Evaluation } from '../../lib/types'
  import type { Sheet } from '../../lib/sheet'
  let { map, sheet }: { map: Evaluation['map']; sheet: Sheet } = $props()

  const run = $derived(map.beside.find((one) => one.name === 'floor run'))
  /** The same reach as in the frame, so that one colour means one thing. */
  const reach = $derived(
    reachFor([map, ...map.beside].flatMap((one) => one.deviation.flatMap((row, r) => row.filter((_, c) => one.judged[r][c])))),
  )
  const cells = $derived(
    run ? run.deviation.flatMap((row, r) => row.flatMap((off, c) => (run.judged[r][c] ? [{ x: run.x[c], z: run.y[r], off }] : []))) : [],
  )
  const deep = $derived(run && run.y.length > 1 ? run.y[1] - run.y[0] : 0.1)
  const across = $derived(run && run.x.length > 1 ? run.x[1] - run.x[0] : 0.1)
</script>

<g aria-hidden="true" pointer-events="none" opacity="0.85" shape-rendering="crispEdges">
  {#each cells as cell, i (i)}
    <rect
      x={sheet.z(cell.z - deep / 2)}
      y={sheet.x(cell.x + across / 2)}
      width={deep * sheet.scale + 0.4}
      height={across * sheet.scale + 0.4}
      fill={deviationColour(cell.off, reach)}
    />
  {/each}
</g>
