<script lang="ts">
  /** The step of the tour, below the stations. */
  import { STEPS, tour } from '../lib/tour.svelte'
  import type { StationId } from '../lib/stations'
  let { station }: { station: StationId | null } = $props()
  $effect(() => tour.look(station))
</script>

{#if tour.at !== null}
  <aside aria-label="Tour" class="flex flex-wrap items-center gap-x-4 gap-y-1 border-b border-line bg-base-200 px-4 py-2">
    <span class="label-text">{tour.at + 1} of {STEPS.length}</span>
    <p class="min-w-60 flex-1" role="status">{STEPS[tour.at].say}</p>
    {#if tour.at < STEPS.length - 1}
      <button type="button" class="btn btn-sm" onclick={() => (tour.at = (tour.at ?? 0) + 1)}>Skip</button>
    {/if}
    <button type="button" class="btn btn-sm" onclick={() => tour.end()}>{tour.at === STEPS.length - 1 ? 'Done' : 'End the tour'}</button>
  </aside>
{/if}
