<script lang="ts">
  /** What may be the screen where no colour is sure, or where there are two of them: pointed at, it is read. */
  import type { Corner, Frame } from '../../lib/types'
  let { frame, over = $bindable(null), chosen }: { frame: Frame; over: number | null; chosen: (corners: Corner[]) => void } = $props()

  const candidates = $derived(frame.reading.candidates ?? [])
  const hue = $derived(frame.reading.hue)
  const question = $derived(
    hue && candidates.every((one) => one.hue === hue)
      ? `All the ${hue} is read, but some stands apart, in a mirror perhaps. Which is the screen?`
      : hue
        ? `Read is the ${hue} screen; ${candidates.length > 1 ? 'these are' : 'this is'} of another colour:`
        : candidates.length > 1
          ? 'No screen is sure here. Is it one of these?'
          : 'No screen is sure here. Is it this?',
  )
</script>

{#if candidates.length && !frame.region.length}
  <div class="flex flex-wrap items-center gap-1.5 pb-2" role="group" aria-label="What may be the screen">
    <span>{question}</span>
    {#each candidates as one, i (i)}
      <button
        type="button"
        class="btn btn-sm"
        onclick={() => chosen(one.corners as Corner[])}
        onpointerenter={() => (over = i)}
        onpointerleave={() => (over = null)}
        onfocus={() => (over = i)}
        onblur={() => (over = null)}>{i + 1}: keyed by {one.hue}, {one.area_percent.toFixed(0)} % of the picture</button
      >
    {/each}
    {#if !hue}<span class="label-text">Or draw round it.</span>{/if}
  </div>
{/if}
