<script lang="ts">
  /** How the screen's own pixels are spread over the levels. */
  import { scaleLinear } from 'd3-scale'
  import Term from '../../parts/Term.svelte'
  import type { Frame } from '../../lib/types'
  let { frame }: { frame: Pick<Frame, 'scopes' | 'reading'> } = $props()
  const bars = $derived(frame.scopes.histogram)
  const y = scaleLinear([0, 1], [40, 2])
</script>

<figure class="mt-3">
  <figcaption class="pb-1"><Term term="histogram">Histogram</Term> of the screen, luma</figcaption>
  <svg
    class="block h-16 w-full bg-base-300"
    viewBox="0 0 101 40"
    preserveAspectRatio="none"
    role="img"
    aria-label="Histogram of the screen, from {frame.reading.level_luma?.p1.toFixed(0) ?? '–'} to {frame.reading.level_luma?.p99.toFixed(
      0,
    ) ?? '–'} %"
  >
    {#each bars as share, i (i)}{#if share > 0}<rect x={i} width="1" y={y(share)} height={40 - y(share)} fill="currentColor" />{/if}{/each}
  </svg>
  <p class="label-text flex justify-between"><span>0</span><span>50</span><span>100 %</span></p>
</figure>
