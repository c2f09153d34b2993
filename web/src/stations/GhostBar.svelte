<script lang="ts">
  /** A remedy being tried: the main numbers before and after, and keep or drop. */
  import { prefs } from '../lib/prefs.svelte'
  import { session } from '../lib/session.svelte'
  import { showValue } from '../lib/units'

  const MAIN = ['margin', 'level-luma', 'spread', 'shadow', 'spill-side', 'over', 'smear', 'gap', 'depth']
  const rows = $derived.by(() => {
    const after = session.ghost?.evaluation.numbers ?? []
    return (session.evaluation?.numbers ?? [])
      .filter((n) => MAIN.includes(n.id))
      .map((n) => {
        const then = after.find((a) => a.id === n.id)
        const show = (v: number | null) => showValue(v, n.unit, n.digits, prefs.length, prefs.light)
        return { label: n.label, before: show(n.value), after: show(then?.value ?? null) }
      })
  })
  const open = (findings: { severity: string }[]) => findings.filter((f) => f.severity !== 'fine').length
</script>

{#if session.ghost && session.evaluation}
  <section aria-label="A remedy being tried" class="border border-primary bg-base-100 p-3">
    <div class="flex items-start justify-between gap-3">
      <h2 class="font-semibold text-primary">{session.ghost.remedy.text}</h2>
      <span class="flex shrink-0 gap-2">
        <button type="button" class="btn btn-sm btn-primary" onclick={() => session.keepGhost()}>Keep</button>
        <button type="button" class="btn btn-sm" onclick={() => session.dropGhost()}>Drop</button>
      </span>
    </div>
    <table class="table table-xs mt-2">
      <thead>
        <tr class="label-text text-left"
          ><th class="font-normal">Number</th><th class="text-right font-normal">now</th><th class="text-right font-normal">then</th></tr
        >
      </thead>
      <tbody>
        {#each rows as row (row.label)}
          <tr class:text-quiet={row.before === row.after}>
            <td>{row.label}</td>
            <td class="text-right">{row.before}</td>
            <td class="text-right" class:font-semibold={row.before !== row.after}>{row.after}</td>
          </tr>
        {/each}
        <tr>
          <td>Open findings</td>
          <td class="text-right">{open(session.evaluation.check.findings)}</td>
          <td class="text-right font-semibold">{open(session.ghost.evaluation.check.findings)}</td>
        </tr>
      </tbody>
    </table>
  </section>
{/if}
