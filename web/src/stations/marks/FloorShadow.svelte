<script lang="ts">
  /** The figure's shadow on the floor, from above. */
  import type { Evaluation } from '../../lib/types'
  import type { Sheet } from '../../lib/sheet'
  let { shadow, sheet }: { shadow: NonNullable<Evaluation['floor_shadow']>; sheet: Sheet } = $props()

  const LEAST_SEEN = 0.08
  const cells = $derived(
    shadow.lost.flatMap((row, r) => row.flatMap((lost, c) => (lost >= LEAST_SEEN ? [{ x: shadow.x[c], z: shadow.z[r], lost }] : []))),
  )
  const deep = $derived(shadow.z[1] - shadow.z[0])
  const across = $derived(shadow.x[1] - shadow.x[0])
</script>

<g aria-hidden="true" pointer-events="none">
  {#each cells as cell, i (i)}
    <rect
      x={sheet.z(cell.z - deep / 2)}
      y={sheet.x(cell.x + across / 2)}
      width={deep * sheet.scale + 0.4}
      height={across * sheet.scale + 0.4}
      fill="black"
      fill-opacity={0.62 * cell.lost}
    />
  {/each}
</g>
