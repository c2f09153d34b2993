<script lang="ts">
  /** A remedy being tried, docked below: what changes, the numbers now and then, keep or drop. */
  import { prefs } from '../lib/prefs.svelte'
  import { session } from '../lib/session.svelte'
  import { showValue } from '../lib/units'

  const MAIN = ['quality', 'clip', 'margin', 'level-luma', 'spread', 'shadow', 'spill-side', 'over', 'smear', 'gap', 'depth']
  const MOST = 6
  const rows = $derived.by(() => {
    const after = session.ghost?.evaluation.numbers ?? []
    return (session.evaluation?.numbers ?? [])
      .filter((n) => MAIN.includes(n.id))
      .sort((a, b) => MAIN.indexOf(a.id) - MAIN.indexOf(b.id))
      .map((n) => {
        const then = after.find((a) => a.id === n.id)
        const show = (v: number | null) => showValue(v, n.unit, n.digits, prefs.length, prefs.light)
        return { label: n.label, before: show(n.value), after: show(then?.value ?? null) }
      })
  })
  const changed = $derived(rows.filter((row) => row.before !== row.after).slice(0, MOST))
  const same = $derived(rows.length - changed.length)
  const open = (findings: { severity: string }[]) => findings.filter((f) => f.severity !== 'fine').length

  /** Hands come here for the decision, and go back to where they were. */
  function focused(keep: HTMLButtonElement) {
    const before = document.activeElement as HTMLElement | null
    keep.focus({ preventScroll: true })
    return () => before?.isConnected && before.focus({ preventScroll: true })
  }
</script>

{#if session.ghost && session.evaluation}
  <section
    aria-label="A remedy being tried"
    class="z-20 flex flex-wrap items-center gap-x-5 gap-y-1 border-t-2 border-primary bg-base-100 px-4 py-2 max-md:fixed max-md:inset-x-0 max-md:bottom-14"
  >
    <h2 class="max-w-80 min-w-40 flex-1 font-semibold text-primary">{session.ghost.remedy.text}</h2>
    <dl class="flex flex-wrap gap-x-5 gap-y-0.5">
      {#each changed as row (row.label)}
        <div>
          <dt class="label-text">{row.label}</dt>
          <dd class="whitespace-nowrap"><span class="text-quiet">{row.before} →</span> <strong>{row.after}</strong></dd>
        </div>
      {/each}
      <div>
        <dt class="label-text">Open findings</dt>
        <dd class="whitespace-nowrap">
          <span class="text-quiet">{open(session.evaluation.check.findings)} →</span>
          <strong>{open(session.ghost.evaluation.check.findings)}</strong>
        </dd>
      </div>
      {#if changed.length === 0}<p class="self-center text-quiet">{same} main numbers stay as they are</p>{/if}
    </dl>
    <span class="ml-auto flex shrink-0 gap-2">
      <button type="button" class="btn btn-sm btn-primary" {@attach focused} title="Keep (K)" onclick={() => session.keepGhost()}
        >Keep</button
      >
      <button type="button" class="btn btn-sm" title="Drop (Esc)" onclick={() => session.dropGhost()}>Drop</button>
    </span>
  </section>
{/if}
