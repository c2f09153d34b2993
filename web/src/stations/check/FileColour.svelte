<script lang="ts">
  /** How the file's colour was understood: what it said of itself, and what had to be assumed. */
  import type { Frame } from '../../lib/types'
  let { reading }: { reading: Frame['reading'] } = $props()

  const usual = $derived(reading.primaries === '709' && ['709', 'sRGB'].includes(reading.transfer))
</script>

{#if !usual}
  <p class="mt-2">
    Written in {reading.primaries === '709' ? 'Rec.709' : reading.primaries === '2020' ? 'Rec.2020' : reading.primaries} primaries, {reading.transfer};
    read as the light it was.
  </p>
{/if}
{#if reading.assumed.length}<p class="label-text mt-2">Assumed: {reading.assumed.join(', ')}.</p>{/if}
