<script lang="ts">
  /** Even the screen: choose what may move, get one change with its before and after, in words for the stands. */
  import { evenScreen } from '../../lib/lightApi'
  import { prefs } from '../../lib/prefs.svelte'
  import { opened } from '../../lib/resource.svelte'
  import { session } from '../../lib/session.svelte'
  import type { Even, Plan } from '../../lib/types'
  import { say } from '../../lib/say'
  let { plan }: { plan: Plan } = $props()

  let may = $state({ heights: true, positions: false, aims: true })
  const search = opened<Even>()
  const found = $derived(search.value)
  let asked = $state.raw<Plan | null>(null)
  const WORDS = [
    ['heights', 'heights'],
    ['aims', 'aims'],
    ['positions', 'places'],
  ] as const

  async function solve() {
    const of = plan
    const even = await search.ask((signal) => evenScreen(of, { ...may }, signal))
    if (!even) return
    asked = of
    if (even.changes.length && session.plan === of) await session.attempt({ text: 'Even the screen', changes: even.changes })
  }
</script>

<section aria-label="Even the screen" class="mt-3">
  <div class="flex flex-wrap items-center gap-x-4 gap-y-1">
    <button type="button" class="btn btn-sm btn-primary" disabled={search.busy} onclick={solve}
      >{search.busy ? 'Searching' : 'Even the screen'}</button
    >
    <span class="label-text">Dimmers, and</span>
    {#each WORDS as [key, word] (key)}
      <label class="flex cursor-pointer items-center gap-1.5">
        <input type="checkbox" class="checkbox checkbox-xs checkbox-primary rounded-xs" bind:checked={may[key]} />
        {word}
      </label>
    {/each}
  </div>
  {#if search.error}<p role="alert" class="mt-1 text-primary">{search.error}</p>{/if}
  {#if found && asked === plan}
    <div class="mt-2" role="status">
      {#if found.changes.length}
        <p>
          Spread {found.spread_before?.toFixed(2) ?? '–'} →
          <span class="font-semibold">{found.spread_after?.toFixed(2) ?? '–'} stops</span>; it is drawn as a trial, keep or drop it above.
        </p>
        <ol class="mt-1 list-decimal pl-5">
          {#each found.words as line, i (i)}<li>{say(line, prefs)}</li>{/each}
        </ol>
      {:else}
        <p>Left as it is.</p>
      {/if}
      {#each found.limits as limit, i (i)}<p class="label-text mt-0.5">{say(limit, prefs)}</p>{/each}
    </div>
  {/if}
</section>
