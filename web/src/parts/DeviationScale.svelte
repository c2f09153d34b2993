<script lang="ts">
  /** The legend of a deviation map. */
  import { deviationColour } from '../lib/deviation'
  let { reach, zero }: { reach: number; zero: string } = $props()
</script>

<span class="label-text flex items-center gap-1.5 whitespace-nowrap">
  −{reach}
  <svg width="120" height="9" role="img" aria-label="Scale from {reach} points below {zero}, violet, to {reach} above, amber">
    {#each Array(24) as _, i (i)}
      <rect x={i * 5} width="5.5" height="9" fill={deviationColour(((i + 0.5) / 12 - 1) * reach, reach)} />
    {/each}
    <path d="M60 0V9" stroke="black" />
  </svg>
  +{reach} points
</span>
