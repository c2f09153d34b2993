<script lang="ts">
  /** What may be the screen where no colour is sure, or where there are two of them: pointed at, it is read. */
  import type { Corner, Frame } from '../../lib/types'
  let { frame, over = $bindable(null), chosen }: { frame: Frame; over: number | null; chosen: (corners: Corner[]) => void } = $props()

  const candidates = $derived(frame.reading.candidates ?? [])
  const hue = $derived(frame.reading.hue)
  const one = $derived(candidates.length === 1)
  const why = $derived(
    candidates.every((each) => each.hue === hue)
      ? `${one ? 'stands' : 'stand'} apart in its colour, in a mirror perhaps`
      : candidates.every((each) => each.hue !== hue)
        ? `${one ? 'is' : 'are'} of another colour`
        : 'are of another colour, or stand apart',
  )
  const question = $derived(
    hue
      ? `Read is the ${hue} screen; ${one ? 'this' : 'these'} ${why}:`
      : `No screen is sure here. Is it ${one ? 'this' : 'one of these'}?`,
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
