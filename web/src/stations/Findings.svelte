<script lang="ts">
  /** Findings, worst first. `own`: what is open at this station, above its workbench; `rest`: all others. */
  import FindingItem from './FindingItem.svelte'
  import type { StationId } from '../lib/stations'
  import type { Evaluation, Finding } from '../lib/types'
  let { evaluation, station, part }: { evaluation: Evaluation | null; station: StationId | null; part: 'own' | 'rest' } = $props()

  let chosen = $state<string | null>(null)
  let showFine = $state(false)

  const all = $derived(evaluation?.check.findings ?? [])
  const isOpen = (f: Finding) => f.severity !== 'fine'
  /** A cause stands under the damage that it adds to, whatever its station. */
  const told = $derived(all.filter((f) => isOpen(f) && !f.cause_of.length))
  const causesOf = (id: string) => all.filter((f) => isOpen(f) && f.cause_of[0] === id)
  const own = $derived(told.filter((f) => f.stage === station))
  const rest = $derived(told.filter((f) => f.stage !== station))
  const fine = $derived(all.filter((f) => !isOpen(f)))
  const shown = $derived(part === 'own' ? own : rest)
  /** One finding stands open by itself: the worst of the station, else the worst of all. */
  const open = $derived(chosen ?? (part === 'own' || !own.length ? shown[0]?.id : ''))
  const toggle = (id: string) => (chosen = open === id ? '' : id)
</script>

{#if evaluation && shown.length}
  {#if part === 'rest' && own.length}<h2 class="label-text pt-3">Elsewhere</h2>{/if}
  <ul>
    {#each shown as finding (finding.id)}
      <FindingItem {finding} open={open === finding.id} toggle={() => toggle(finding.id)} />
      {#each causesOf(finding.id) as cause (cause.id)}
        <FindingItem finding={cause} beneath open={open === cause.id} toggle={() => toggle(cause.id)} />
      {/each}
    {/each}
  </ul>
{/if}
{#if evaluation && part === 'rest'}
  {#if !own.length && !rest.length}<p class="py-4 text-reading">Everything this version can judge holds.</p>{/if}
  {#if fine.length}
    <button
      type="button"
      class="label-text mt-2 cursor-pointer hover:text-ink"
      aria-expanded={showFine}
      onclick={() => (showFine = !showFine)}
    >
      {showFine ? 'Hide' : 'Show'}
      {fine.length} that hold
    </button>
    {#if showFine}
      <ul>
        {#each fine as finding (finding.id)}<FindingItem {finding} open={open === finding.id} toggle={() => toggle(finding.id)} />{/each}
      </ul>
    {/if}
  {/if}
  <details class="mt-3 pb-2">
    <summary class="label-text cursor-pointer">Not in these numbers</summary>
    <ul class="mt-1 list-inside list-disc text-quiet">
      {#each evaluation.check.not_computed as left (left)}<li>{left}</li>{/each}
    </ul>
  </details>
{/if}
