<script lang="ts">
  /** All set-ups with the worst thing about each, once it is judged; new, open, rename, duplicate, delete with undo. */
  import { listen } from '../lib/events'
  import { who } from '../lib/who.svelte'
  import { push } from 'svelte-spa-router'
  import Preferences from '../parts/Preferences.svelte'
  import State from '../parts/State.svelte'
  import Productions from '../production/Productions.svelte'
  import Trash from './Trash.svelte'
  import * as api from '../lib/api'
  import { prefs } from '../lib/prefs.svelte'
  import { tour } from '../lib/tour.svelte'
  import { opened } from '../lib/resource.svelte'
  import { STATE_OF, type SetupSummary, type SetupTitle } from '../lib/types'
  import { say } from '../lib/say'

  /** What there is to open stands at once; what is wrong with each takes a moment when the server has just begun. */
  const listed = opened<SetupTitle[]>()
  const judged = opened<SetupSummary[]>()
  const setups = $derived(listed.value)
  const summaries = $derived(new Map((judged.value ?? []).map((one) => [one.id, one])))
  let refused = $state('')
  const error = $derived(refused || listed.error || judged.error)
  let renaming = $state<number | null>(null)
  let deleted = $state.raw<SetupTitle | null>(null)

  async function run(work: () => Promise<unknown>) {
    try {
      await work()
      refused = ''
    } catch (err) {
      refused = (err as Error).message
      return
    }
    await listed.ask(() => api.listTitles())
    void judged.ask((signal) => api.listSetups(signal))
  }
  void run(async () => {})

  const remove = (setup: SetupTitle) =>
    run(async () => {
      await api.deleteSetup(setup.id)
      deleted = setup
    })
  const restore = (id: number) =>
    run(async () => {
      await api.restoreSetup(id)
      deleted = null
    })
  const rename = (id: number, to: string) =>
    run(async () => {
      renaming = null
      if (to.trim()) await api.renameSetup(id, to)
    })
  async function openFile(event: Event) {
    const input = event.currentTarget as HTMLInputElement
    const file = input.files?.[0]
    if (!file) return
    await run(async () => {
      let plan: Record<string, unknown>
      try {
        plan = JSON.parse(await file.text())
      } catch {
        throw new Error(`${file.name} is not JSON; choose a plan document.`)
      }
      const made = await api.createSetup(typeof plan.title === 'string' && plan.title ? plan.title : file.name, plan)
      await push(`/setup/${made.id}`)
    })
    input.value = ''
  }
  const focus = (node: HTMLInputElement) => (node.focus(), node.select())
  $effect(() => listen((changed) => changed.what === 'setups' && void run(async () => {})))
</script>

<svelte:head><title>Set-ups · Ausblick</title></svelte:head>
<header class="flex h-11 items-center justify-between border-b border-line px-4 max-sm:px-2">
  <h1 class="flex-1 text-body font-semibold">Ausblick</h1>
  {#if who.owner}<a class="btn btn-sm mr-1.5" href="#/network">Network</a>{/if}
  <a class="btn btn-sm mr-1.5" href="#/words">Words</a>
  <a class="btn btn-sm mr-1.5 sm:mr-3" href="#/kit">Kit room</a>
  <Preferences />
</header>
<main class="mx-auto max-w-4xl px-4 py-8">
  <Productions />
  <h2 class="mb-4 text-figure font-light">Set-ups</h2>
  {#if error}<p role="alert" class="mb-4 border border-primary p-2 text-primary">{error}</p>{/if}
  {#if deleted}
    <p role="status" class="mb-4 flex items-center justify-between border border-line p-2">
      <span>“{deleted.title}” is deleted.</span>
      <button type="button" class="btn btn-sm" onclick={() => restore(deleted!.id)}>Bring it back</button>
    </p>
  {/if}
  {#if setups === null && !error}<progress class="progress mb-4 w-full max-w-60" aria-label="Reading the set-ups"></progress>{/if}
  {#if setups?.length === 0}
    <p class="mb-6 max-w-prose text-quiet">
      Nothing planned yet. Say what room, screen, lamps and camera you have: a lit set comes out of it, and what is wrong with it.
    </p>
  {/if}
  <ul>
    {#each setups ?? [] as setup (setup.id)}
      {@const found = summaries.get(setup.id)}
      <li class="flex flex-wrap items-center gap-x-4 gap-y-1 border-b border-line py-3">
        <span class="w-16"
          >{#if setup.damaged}<State state="fails" />{:else if found}<State state={STATE_OF[found.worst]} />{/if}</span
        >
        <span class="min-w-48 flex-1">
          {#if renaming === setup.id}
            <input
              class="input input-sm"
              aria-label="Title"
              value={setup.title}
              maxlength="200"
              {@attach focus}
              onblur={(event) => renaming === setup.id && rename(setup.id, event.currentTarget.value)}
              onkeydown={(event) => {
                if (event.key === 'Enter') event.currentTarget.blur()
                if (event.key === 'Escape') renaming = null
              }}
            />
          {:else}
            <a class="text-reading hover:text-primary" href="#/setup/{setup.id}">{setup.title}</a>
          {/if}
          <span class="block text-quiet"
            >{setup.damaged
              ? `Damaged, and kept as it is: ${setup.damaged}`
              : !found
                ? judged.error
                  ? 'Not judged'
                  : 'Being judged …'
                : found.worst_told
                  ? say(found.worst_told, prefs)
                  : 'Everything judged so far holds'}</span
          >
        </span>
        {#if setup.damaged}
          <button type="button" class="btn btn-sm btn-primary" onclick={() => run(() => api.undoSetup(setup.id))}
            >The state before it</button
          >
        {:else if found}<span class="label-text">{found.open_findings} open</span>{/if}
        <span class="flex flex-wrap gap-1.5">
          <button type="button" class="btn btn-sm" aria-label="Rename {setup.title}" onclick={() => (renaming = setup.id)}>Rename</button>
          {#if setups!.length > 1}
            <button
              type="button"
              class="btn btn-sm"
              aria-label="Compare {setup.title} with another"
              onclick={() => push(`/compare/${setup.id}/${setups!.find((one) => one.id !== setup.id)!.id}`)}>Compare</button
            >
          {/if}
          <button
            type="button"
            class="btn btn-sm"
            aria-label="Duplicate {setup.title}"
            onclick={() => run(() => api.duplicateSetup(setup.id))}>Duplicate</button
          >
          <button type="button" class="btn btn-sm" aria-label="Delete {setup.title}" onclick={() => remove(setup)}>Delete</button>
        </span>
      </li>
    {/each}
  </ul>
  <div class="mt-6 flex flex-wrap items-center gap-3">
    <a class="btn btn-sm btn-primary" href="#/new">New set-up</a>
    {#if setups?.length}
      <!-- On a set where something is to be mended: it shows a remedy being tried. -->
      {@const shown = (judged.value ?? []).find((one) => STATE_OF[one.worst] === 'fails') ?? setups[0]}
      <button
        type="button"
        class="btn btn-sm"
        disabled={judged.value === null && !judged.error}
        onclick={() => (tour.begin(), push(`/setup/${shown.id}`))}>A tour in five minutes</button
      >
    {/if}
    <label class="btn btn-sm">
      Open a plan document
      <input type="file" class="sr-only" accept=".json,application/json" onchange={openFile} />
    </label>
  </div>
  <Trash changed={() => run(async () => {})} />
  <p class="label-text mt-10">
    <a class="underline hover:text-ink" href="/assets/third-party-notices.txt" target="_blank" rel="noreferrer"
      >Whose work is in this program</a
    >
  </p>
</main>
