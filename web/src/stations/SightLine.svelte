<script lang="ts">
  /** The stations in the order of the work, on one line: name, telling number, state. Keys 1 to 8. */
  import State from '../parts/State.svelte'
  import { prefs } from '../lib/prefs.svelte'
  import { keyTelling, STATIONS, stateOf, telling, type StationId } from '../lib/stations'
  import { testKey } from '../lib/testKey.svelte'
  import type { Evaluation, Plan } from '../lib/types'
  let {
    plan,
    evaluation,
    current,
    open,
  }: { plan: Plan; evaluation: Evaluation | null; current: StationId | null; open: (id: StationId) => void } = $props()

  const findings = $derived(evaluation?.check.findings ?? [])
</script>

<nav aria-label="Stations" class="relative grid grid-cols-4 border-b border-line md:grid-cols-8">
  <span class="absolute inset-x-0 top-[11px] hidden h-px bg-line md:block" aria-hidden="true"></span>
  {#each STATIONS as station, i (station.id)}
    {@const told =
      station.id === 'key'
        ? keyTelling(evaluation?.check.predicted?.quality, testKey.result?.formula ? testKey.result.quality : null, testKey.stale)
        : telling(station.id, plan, evaluation, prefs.length, prefs.light)}
    {@const state = stateOf(findings, station.id)}
    <button
      type="button"
      class="relative cursor-pointer px-2 pt-1 pb-1.5 text-left hover:bg-base-200 md:px-2.5"
      class:bg-base-200={current === station.id}
      aria-current={current === station.id ? 'step' : undefined}
      onclick={() => open(station.id)}
    >
      <span class="relative flex items-center gap-2">
        {#if station.id === 'check' || station.id === 'key'}
          <svg width="11" height="11" viewBox="0 0 12 12" aria-hidden="true"
            ><path d="M1 6h10M6 1v10" stroke="var(--quiet)" stroke-width="1.5" /></svg
          >
        {:else}
          <span class="pr-0.5 {current === station.id ? 'bg-base-200' : 'bg-base-100'}"><State {state} word={false} /></span>
        {/if}
        <span class="label-text pr-1 whitespace-nowrap {current === station.id ? 'bg-base-200 !text-primary' : 'bg-base-100'}">
          <kbd class="hidden font-sans md:inline">{i + 1}</kbd>
          {station.name}
        </span>
      </span>
      <span class="mt-0.5 flex flex-wrap items-baseline gap-x-1.5">
        <span class="font-semibold whitespace-nowrap lg:text-reading" class:text-primary={state === 'fails'}>{told.value}</span>
        <span class="label-text max-lg:hidden">{told.note}</span>
      </span>
      {#if current === station.id}<span class="absolute inset-x-0 -bottom-px h-0.5 bg-primary"></span>{/if}
    </button>
  {/each}
</nav>
