<script lang="ts">
  /** Productions, above the set-ups that belong to them. */
  import { push } from 'svelte-spa-router'
  import { listen } from '../lib/events'
  import * as api from '../lib/productionApi'

  let found = $state.raw<Awaited<ReturnType<typeof api.listProductions>> | null>(null)
  let error = $state('')
  async function run(work: () => Promise<unknown>) {
    try {
      await work()
      found = await api.listProductions()
      error = ''
    } catch (err) {
      error = (err as Error).message
    }
  }
  void run(async () => {})
  $effect(() => listen((changed) => changed.what === 'productions' && void run(async () => {})))

  const begin = () =>
    run(async () => {
      const made = await api.createProduction({ format: 'ausblick-production', version: 1, title: 'New production' })
      await push(`/production/${made.id}`)
    })
  async function openFile(event: Event) {
    const input = event.currentTarget as HTMLInputElement
    const file = input.files?.[0]
    input.value = ''
    if (!file) return
    await run(async () => {
      let document: unknown
      try {
        document = JSON.parse(await file.text())
      } catch {
        throw new Error(`${file.name} is not JSON; choose a production document.`)
      }
      const made = await api.createProduction(document)
      await push(`/production/${made.id}`)
    })
  }
</script>

<section aria-label="Productions" class="mb-10">
  <h2 class="mb-4 text-figure font-light">Productions</h2>
  {#if error}<p role="alert" class="mb-4 border border-primary p-2 text-primary">{error}</p>{/if}
  <ul>
    {#each found?.productions ?? [] as one (one.id)}
      <li class="flex flex-wrap items-baseline gap-x-4 gap-y-1 border-b border-line py-3">
        <span class="min-w-48 flex-1">
          <a class="text-reading hover:text-primary" href="#/production/{one.id}">{one.title || 'Without a title'}</a>
          <span class="block text-quiet">{[one.place, one.dates.join(', ')].filter(Boolean).join(' · ')}</span>
        </span>
        <span class="label-text">{one.done} of {one.shots} shots done</span>
        <span class="flex gap-1.5">
          <a class="btn btn-sm" href="#/production/{one.id}/takes" aria-label="Log takes of {one.title}">Takes</a>
          <button type="button" class="btn btn-sm" aria-label="Delete {one.title}" onclick={() => run(() => api.deleteProduction(one.id))}
            >Delete</button
          >
        </span>
      </li>
    {/each}
  </ul>
  <div class="mt-4 flex flex-wrap items-center gap-3">
    <button type="button" class="btn btn-sm" onclick={begin}>New production</button>
    <label class="btn btn-sm">
      Open a production
      <input type="file" class="sr-only" accept=".json,application/json" onchange={openFile} />
    </label>
    {#each found?.trash ?? [] as one (one.id)}
      <button type="button" class="btn btn-sm" onclick={() => run(() => api.restoreProduction(one.id))}>Bring back {one.title}</button>
    {/each}
  </div>
</section>
