<script lang="ts">
  /** The trade's words in one list, to look one up. */
  import Preferences from '../parts/Preferences.svelte'
  import * as api from '../lib/api'

  let terms = $state.raw<{ term: string; means: string }[]>([])
  let error = $state('')
  let wanted = $state('')
  const shown = $derived(
    terms
      .filter((one) => `${one.term} ${one.means}`.toLowerCase().includes(wanted.trim().toLowerCase()))
      .sort((a, b) => a.term.localeCompare(b.term)),
  )
  void api
    .glossary()
    .then((found) => (terms = found))
    .catch((err: Error) => (error = err.message))
</script>

<svelte:head><title>Words · Ausblick</title></svelte:head>
<header class="flex h-11 items-center gap-3 border-b border-line px-4">
  <a href="#/" class="font-semibold hover:text-primary">Ausblick</a>
  <span class="text-quiet" aria-hidden="true">/</span>
  <h1 class="flex-1 font-semibold">Words</h1>
  <span class="max-sm:hidden"><Preferences /></span>
</header>
<main class="mx-auto max-w-3xl px-4 py-6">
  {#if error}<p role="alert" class="mb-4 border border-primary p-2 text-primary">{error}</p>{/if}
  <input class="input input-sm mb-4 w-60" aria-label="Look up a word" placeholder="Look up a word" bind:value={wanted} />
  <dl>
    {#each shown as one (one.term)}
      <div class="grid grid-cols-[11rem_1fr] gap-4 border-t border-line py-1.5 max-sm:grid-cols-1 max-sm:gap-0">
        <dt class="font-semibold">{one.term}</dt>
        <dd class="text-quiet">{one.means}</dd>
      </div>
    {:else}
      {#if terms.length}<p class="text-quiet">No word of that kind.</p>{/if}
    {/each}
  </dl>
</main>
