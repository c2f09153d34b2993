<script lang="ts">
  /** First the one thing that hurts most; then which lamp it is, how sure that is, and what to do. */
  import State from '../../parts/State.svelte'
  import { session } from '../../lib/session.svelte'
  import type { Cause, Change, Comparison } from '../../lib/types'
  let { verdict, cause }: { verdict: Comparison['verdict']; cause: Cause | null } = $props()

  const found = $derived(cause?.cause ?? null)
  const sure = (certainty: number) => (certainty >= 0.85 ? 'sure' : certainty >= 0.5 ? 'likely' : 'a guess')
  const attempt = (text: string, changes: Change[]) =>
    session.attempt({ text: `As built: ${text}`, changes }).then(() => (location.hash = `#/setup/${session.id}/light`))
</script>

<div class="flex items-start gap-3 border-b border-line pb-2">
  <span class="w-14 shrink-0 pt-0.5"><State state={verdict.state} /></span>
  <p class="text-reading">{verdict.says}</p>
</div>
{#if found}
  <section aria-label="Cause" class="border-b border-line py-2">
    <p class="flex items-baseline justify-between gap-3">
      <span class="font-semibold">{found.says}</span>
      {#if found.story !== 'unknown'}<span class="label-text whitespace-nowrap" title="How often such an answer is right"
          >{sure(found.certainty)}, {(100 * found.certainty).toFixed(0)} %</span
        >{/if}
    </p>
    {#if found.cure}<p class="mt-1 text-reading text-primary">{found.cure}</p>{/if}
    {#if found.also}
      <p class="mt-1.5 flex items-baseline justify-between gap-3">
        <span class="font-semibold">{found.also.says}</span>
        <span class="label-text whitespace-nowrap">{sure(found.also.certainty)}, {(100 * found.also.certainty).toFixed(0)} %</span>
      </p>
      {#if found.also.cure}<p class="mt-1 text-primary">{found.also.cure}</p>{/if}
    {/if}
    {#if found.not_judged.length}<p class="label-text mt-1.5">This frame cannot tell: {found.not_judged.join(', ')}.</p>{/if}
    {#if found.decide && found.decide !== found.cure}<p class="label-text mt-0.5">{found.decide}.</p>{/if}
    {#if found.changes.length}
      <p class="mt-1.5 flex flex-wrap gap-2">
        <button type="button" class="btn btn-sm" onclick={() => session.change(found.changes)}>Take over as built</button>
        <button type="button" class="btn btn-sm" onclick={() => attempt(found.says, found.changes)}>Show in the plan</button>
      </p>
    {/if}
  </section>
{/if}
{#if cause?.noise.length}
  <p class="flex items-center justify-between gap-3 border-b border-line py-1.5">
    <span class="label-text">This frame's noise can take the place of the model's.</span>
    <button type="button" class="btn btn-sm shrink-0" onclick={() => session.change(cause!.noise)}>Use it</button>
  </p>
{/if}
