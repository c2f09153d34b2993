<script lang="ts">
  /** The findings, worst first; those of the open station before the rest. */
  import FindingItem from './FindingItem.svelte'
  import { STATIONS, type StationId } from '../lib/stations'
  import type { Evaluation } from '../lib/types'
  let { evaluation, station }: { evaluation: Evaluation | null; station: StationId | null } = $props()

  let chosen = $state<string | null>(null)
  let showFine = $state(false)

  const all = $derived(evaluation?.check.findings ?? [])
  const mine = $derived(all.filter((f) => f.stage === station))
  const rest = $derived(all.filter((f) => f.stage !== station && f.severity !== 'fine'))
  const fine = $derived(all.filter((f) => f.severity === 'fine' && f.stage !== station))
  const open = $derived(chosen ?? (mine[0] ?? rest[0])?.id)
  const name = $derived(STATIONS.find((s) => s.id === station)?.name)
  const toggle = (id: string) => (chosen = open === id ? '' : id)
</script>

{#if evaluation}
  {#if mine.length}
    <h2 class="label-text pt-2">{name}</h2>
    <ul>{#each mine as finding (finding.id)}<FindingItem {finding} open={open === finding.id} toggle={() => toggle(finding.id)} />{/each}</ul>
  {/if}
  {#if rest.length}
    {#if mine.length}<h2 class="label-text pt-3">Elsewhere</h2>{/if}
    <ul>{#each rest as finding (finding.id)}<FindingItem {finding} open={open === finding.id} toggle={() => toggle(finding.id)} />{/each}</ul>
  {:else if !mine.length}
    <p class="py-4 text-reading">Everything this version can judge holds.</p>
  {/if}
  {#if fine.length}
    <button type="button" class="label-text mt-2 cursor-pointer hover:text-ink" aria-expanded={showFine} onclick={() => (showFine = !showFine)}>
      {showFine ? 'Hide' : 'Show'} {fine.length} that hold
    </button>
    {#if showFine}
      <ul>{#each fine as finding (finding.id)}<FindingItem {finding} open={open === finding.id} toggle={() => toggle(finding.id)} />{/each}</ul>
    {/if}
  {/if}
  <details class="mt-3 pb-2">
    <summary class="label-text cursor-pointer">Not in these numbers</summary>
    <ul class="mt-1 list-inside list-disc text-quiet">
      {#each evaluation.check.not_computed as left (left)}<li>{left}</li>{/each}
    </ul>
  </details>
{/if}
