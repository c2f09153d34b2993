<script lang="ts">
  /** Title, save state, undo and redo, versions, units and theme. */
  import Redo2 from '@lucide/svelte/icons/redo-2'
  import Undo2 from '@lucide/svelte/icons/undo-2'
  import Preferences from '../parts/Preferences.svelte'
  import * as api from '../lib/api'
  import { session } from '../lib/session.svelte'
  import type { Version } from '../lib/types'
  import TakeAlong from './TakeAlong.svelte'

  let versions = $state.raw<Version[]>([])
  let list = $state<HTMLElement>()
  let name = $state('')

  const SAVED = { saved: 'Saved', waiting: 'Not saved yet', saving: 'Saving', offline: 'Server away; will be saved' }

  /** Of the set-up that is open: who has left it meanwhile asks for none. */
  async function show(of = session.id) {
    if (of && of === session.id) versions = await api.listVersions(of).catch(() => [])
  }
  async function keep(event: SubmitEvent) {
    event.preventDefault()
    if (!name.trim()) return
    const own = session.id
    await session.save()
    await api.nameVersion(own, name.trim()).catch((err: Error) => (session.error = err.message))
    name = ''
    await show(own)
  }
  const day = (stamp: string) => new Date(stamp).toLocaleString(undefined, { dateStyle: 'medium', timeStyle: 'short' })
</script>

<header class="flex h-11 items-center gap-3 border-b border-line px-4">
  <a href="#/" class="font-semibold hover:text-primary">Ausblick</a>
  <span class="text-quiet" aria-hidden="true">/</span>
  <h1 class="min-w-0 flex-1">
    <span class="sr-only">{session.plan?.title ?? 'Set-up'}</span>
    <input
      class="w-full max-w-96 truncate border-b border-transparent bg-transparent text-body font-semibold hover:border-line focus:border-primary"
      aria-label="Title"
      value={session.plan?.title ?? ''}
      maxlength="200"
      onchange={(event) => session.change([{ path: 'title', value: event.currentTarget.value.trim() || 'Untitled set-up' }])}
    />
  </h1>
  <span class="label-text max-sm:hidden" role="status">{SAVED[session.saving]}</span>
  <span class="flex items-center gap-1.5">
    <button
      type="button"
      class="btn btn-sm"
      aria-label="Undo"
      title="Undo (Ctrl Z)"
      disabled={!session.canUndo && session.saving === 'saved'}
      onclick={() => session.undo()}><Undo2 size={15} class="my-1" /></button
    >
    <button
      type="button"
      class="btn btn-sm"
      aria-label="Redo"
      title="Redo (Ctrl Y)"
      disabled={!session.canRedo}
      onclick={() => session.redo()}><Redo2 size={15} class="my-1" /></button
    >
    <button type="button" class="btn btn-sm [anchor-name:--versions]" popovertarget="versions">Versions</button>
    <div
      bind:this={list}
      id="versions"
      popover
      class="dropdown dropdown-end mt-1 w-72 border border-line bg-base-100 p-3 text-ink shadow-xl [position-anchor:--versions]"
      ontoggle={(event) => event.newState === 'open' && show()}
    >
      <form class="flex gap-2" onsubmit={keep}>
        <input class="input input-sm" aria-label="Name for this state" placeholder="Name this state" maxlength="200" bind:value={name} />
        <button type="submit" class="btn btn-sm">Keep</button>
      </form>
      <ul class="mt-2">
        {#each versions as version (version.id)}
          <li class="flex items-center justify-between gap-2 border-t border-line py-1.5">
            <span class="min-w-0"
              ><span class="block truncate">{version.name}</span><span class="label-text">{day(version.created)}</span></span
            >
            <a class="btn btn-sm" aria-label="Compare with {version.name}" href="#/compare/{session.id}v{version.id}/{session.id}"
              >Compare</a
            >
            <button
              type="button"
              class="btn btn-sm"
              aria-label="Open {version.name}"
              onclick={() => (void session.openVersion(version.id), list?.hidePopover())}>Open</button
            >
          </li>
        {:else}
          <li class="label-text py-1.5">No named version yet. Every change can be undone; a name makes a state easy to find again.</li>
        {/each}
      </ul>
      <a class="btn btn-sm mt-2 inline-block" href="#/compare/{session.id}/{session.id}">Compare with another set-up</a>
    </div>
    <TakeAlong />
  </span>
  <span class="max-md:hidden"><Preferences /></span>
</header>
