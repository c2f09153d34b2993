<script lang="ts">
  /** The figure's shadow on the floor, from above. */
  import { cellPicture } from '../../lib/cellPicture'
  import type { Evaluation } from '../../lib/types'
  import type { Sheet } from '../../lib/sheet'
  let { shadow, sheet }: { shadow: NonNullable<Evaluation['floor_shadow']>; sheet: Sheet } = $props()

  const LEAST_SEEN = 0.02
  const deep = $derived(shadow.z[1] - shadow.z[0])
  const across = $derived(shadow.x[1] - shadow.x[0])
  const picture = $derived(
    cellPicture(shadow.z.length, shadow.x.length, (c, r) => {
      const lost = shadow.lost[c][shadow.x.length - 1 - r]
      // Black; its cover is the pixel's highest byte.
      return lost >= LEAST_SEEN ? (Math.round(255 * 0.62 * lost) << 24) >>> 0 : 0
    }),
  )
</script>

<image
  aria-hidden="true"
  pointer-events="none"
  href={picture}
  preserveAspectRatio="none"
  x={sheet.z(shadow.z[0] - deep / 2)}
  y={sheet.x(shadow.x[shadow.x.length - 1] + across / 2)}
  width={deep * shadow.z.length * sheet.scale}
  height={across * shadow.x.length * sheet.scale}
/>
