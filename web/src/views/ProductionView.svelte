<script lang="ts">
  /** One production: what stands against it, worst first; its shots, its days, its outfits, its people. */
  import { untrack } from 'svelte'
  import { push } from 'svelte-spa-router'
  import Days from '../production/Days.svelte'
  import DayFindings from '../production/DayFindings.svelte'
  import Means from '../production/Means.svelte'
  import Outfits from '../production/Outfits.svelte'
  import People from '../production/People.svelte'
  import Shots from '../production/Shots.svelte'
  import Preferences from '../parts/Preferences.svelte'
  import Tabs from '../parts/Tabs.svelte'
  import { listen } from '../lib/events'
  import { offline } from '../lib/offline.svelte'
  import { exportOf } from '../lib/productionApi'
  import { openProduction } from '../lib/production.svelte'
  let { params }: { params: { id: string; part?: string } } = $props()

  const PARTS = [
    ['shots', 'Shots'],
    ['days', 'Days'],
    ['outfits', 'Outfits'],
    ['people', 'People'],
    ['means', 'Plates, sound, kit'],
  ] as const
  type Part = (typeof PARTS)[number][0]
  const part = $derived<Part>(PARTS.find(([id]) => id === params.part)?.[0] ?? 'shots')
  const open = openProduction
  const document = $derived(open.document)

  $effect(() => {
    const id = Number(params.id)
    untrack(() => void open.show(id))
  })
  $effect(() => listen((changed) => ['productions', 'setups', 'kit'].includes(changed.what) && open.heard()))
  const set = (path: string) => (event: Event) =>
    open.change([{ path, value: (event.currentTarget as HTMLInputElement | HTMLTextAreaElement).value }])
</script>

<svelte:head><title>{document?.title || 'Production'} · Ausblick</title></svelte:head>
<header class="flex min-h-11 flex-wrap items-center gap-x-3 gap-y-1 border-b border-line px-4 py-1">
  <a href="#/" class="font-semibold hover:text-primary">Ausblick</a>
  <span class="text-quiet" aria-hidden="true">/</span>
  <h1 class="flex-1 font-semibold">
    {#if document}<input
        class="w-full max-w-80 bg-transparent outline-none focus:underline"
        aria-label="Title"
        maxlength="200"
        value={document.title}
        onchange={set('title')}
      />{/if}
  </h1>
  <span class="label-text" role="status">{open.unsaved ? 'Saving' : open.busy ? 'Working it out' : ''}</span>
  <button type="button" class="btn btn-sm" disabled={!open.canUndo} onclick={() => open.undo()}>Undo</button>
  <button type="button" class="btn btn-sm max-sm:hidden" disabled={!open.canRedo} onclick={() => open.redo()}>Redo</button>
  <a class="btn btn-sm btn-primary" href="#/production/{params.id}/takes">Log takes</a>
  <span class="max-sm:hidden"><Preferences /></span>
</header>
{#if offline.keptAt}<p role="status" class="border-b border-primary px-4 py-1.5 text-primary">
    The server is away. What stands here is of {offline.keptAt}.
  </p>{/if}
{#if open.error}<p role="alert" class="border-b border-primary px-4 py-1.5 text-primary">{open.error}</p>{/if}
{#if document}
  <main class="mx-auto max-w-7xl px-4 py-3">
    <div class="flex flex-wrap items-end gap-x-6 gap-y-2">
      <Tabs
        label="Parts of the production"
        value={part}
        options={PARTS}
        onchange={(to) => push(`/production/${params.id}${to === 'shots' ? '' : `/${to}`}`)}
      />
      <label class="flex items-center gap-2"
        ><span class="label-text">Place</span><input
          class="input input-sm w-64 max-sm:w-44"
          maxlength="200"
          value={document.place}
          onchange={set('place')}
        /></label
      >
      <span class="flex flex-wrap gap-1.5 md:ml-auto">
        <a class="btn btn-sm" href={exportOf(open.id, 'day')} target="_blank" rel="noopener">Day sheet</a>
        <a class="btn btn-sm" href={exportOf(open.id, 'csv')}>CSV</a>
        <a class="btn btn-sm" href={exportOf(open.id, 'ics')}>Calendar</a>
        <a class="btn btn-sm" href={exportOf(open.id, 'packing')}>Packing list</a>
        <a class="btn btn-sm" href={exportOf(open.id, 'log')}>Takes</a>
        <a class="btn btn-sm" href={exportOf(open.id, 'json')}>Document</a>
        <a class="btn btn-sm" href={exportOf(open.id, 'bundle')}>Hand over</a>
      </span>
    </div>
    <div class="mt-3 grid gap-6 lg:grid-cols-[minmax(0,1fr)_22rem]">
      <section aria-label={PARTS.find(([id]) => id === part)![1]} class="min-w-0">
        {#if part === 'shots'}<Shots {open} {document} />
        {:else if part === 'days'}<Days {open} {document} />
        {:else if part === 'outfits'}<Outfits {open} {document} />
        {:else if part === 'people'}<People {open} {document} />
        {:else}<Means {open} {document} />{/if}
      </section>
      <DayFindings {open} {document} />
    </div>
  </main>
{/if}
