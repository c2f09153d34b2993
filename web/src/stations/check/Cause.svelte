<script lang="ts">
  /** First the one thing that hurts most; then which lamp it is, how sure that is, and what to do. */
  import State from '../../parts/State.svelte'
  import { session } from '../../lib/session.svelte'
  import type { Cause, Change, Comparison } from '../../lib/types'
  let { verdict, cause }: { verdict: Comparison['verdict']; cause: Cause | null } = $props()

  const fit = $derived(cause?.fit ?? null)
  const sure = $derived(
    !fit ? '' : fit.story === 'unknown' ? 'not explained' : fit.sure > 0.75 ? 'sure' : fit.sure > 0.35 ? 'likely' : 'a guess',
  )
  const attempt = (text: string, changes: Change[]) =>
    session.attempt({ text: `As built: ${text}`, changes }).then(() => (location.hash = `#/setup/${session.id}/light`))
</script>

<div class="flex items-start gap-3 border-b border-line pb-2">
  <span class="w-14 shrink-0 pt-0.5"><State state={verdict.state} /></span>
  <p class="text-reading">{verdict.says}</p>
</div>
{#if fit}
  <section aria-label="Cause" class="border-b border-line py-2">
    <p class="flex items-baseline justify-between gap-3">
      <span class="font-semibold">{fit.says}</span><span
        class="label-text whitespace-nowrap"
        title="Share of the level that this leaves unexplained">{sure}, {fit.misfit_percent.toFixed(1)} % left over</span
      >
    </p>
    {#if fit.cure}<p class="mt-1 text-reading text-primary">{fit.cure}</p>{/if}
    {#if fit.changes.length}
      <p class="mt-1.5 flex flex-wrap gap-2">
        <button type="button" class="btn btn-sm" onclick={() => session.change(fit.changes)}>Take over as built</button>
        <button type="button" class="btn btn-sm" onclick={() => attempt(fit.says, fit.changes)}>Show in the plan</button>
      </p>
    {/if}
  </section>
{/if}
{#if cause?.colour}
  <section aria-label="Colour" class="border-b border-line py-2">
    <p class="font-semibold">{cause.colour.says}</p>
    <p class="mt-1 flex items-start justify-between gap-3">
      <span class="text-primary">{cause.colour.cure}</span><button
        type="button"
        class="btn btn-sm shrink-0"
        onclick={() => session.change(cause!.colour!.changes)}>Take over as built</button
      >
    </p>
  </section>
{/if}
{#if cause?.noise.length}
  <p class="flex items-center justify-between gap-3 border-b border-line py-1.5">
    <span class="label-text">This frame's noise can take the place of the model's.</span>
    <button type="button" class="btn btn-sm shrink-0" onclick={() => session.change(cause!.noise)}>Use it</button>
  </p>
{/if}
