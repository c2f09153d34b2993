<script lang="ts">
  /** A folder of this machine whose new files are measured as they come: a card reader, a tethered camera. */
  import { stopWatch, watchFolder, watchState } from '../../lib/checkApi'
  import { session } from '../../lib/session.svelte'
  import type { WatchState } from '../../lib/types'
  let { arrived }: { arrived: () => void } = $props()

  let watch = $state.raw<WatchState | null>(null)
  let folder = $state('')
  let error = $state('')
  let open = $state(false)
  $effect(() => {
    const id = session.id
    void watchState(id).then(
      (found) => ((watch = found), (open = found.folder !== null)),
      () => {},
    )
  })
  $effect(() => {
    if (!watch?.folder) return
    const id = session.id
    const timer = setInterval(async () => {
      const found = await watchState(id).catch(() => null)
      if (!found) return
      const more = found.seen > (watch?.seen ?? 0)
      watch = found
      if (more) arrived()
    }, 1500)
    return () => clearInterval(timer)
  })
  async function start(event: Event) {
    event.preventDefault()
    await watchFolder(session.id, folder).then(
      (found) => ((watch = found), (error = '')),
      (err: Error) => (error = err.message),
    )
  }
</script>

<div class="mt-2 border-t border-line pt-2">
  {#if watch?.folder}
    <p class="flex items-center justify-between gap-3">
      <span class="min-w-0 truncate"
        >Watching {watch.folder}: <span class="text-quiet">{watch.seen} measured</span>{#if watch.problem}<span class="text-primary">
            {watch.problem}</span
          >{/if}</span
      >
      <button type="button" class="btn btn-sm shrink-0" onclick={async () => (watch = await stopWatch(session.id))}>Stop watching</button>
    </p>
  {:else if open}
    <form class="flex items-center gap-2" onsubmit={start}>
      <input class="input input-sm flex-1" aria-label="Folder to watch" placeholder="Folder on this machine" bind:value={folder} required />
      <button class="btn btn-sm shrink-0">Watch</button>
    </form>
    {#if error}<p role="alert" class="mt-1 text-primary">{error}</p>{/if}
  {:else}
    <button type="button" class="label-text cursor-pointer underline hover:text-ink" onclick={() => (open = true)}
      >Watch a folder for new frames</button
    >
  {/if}
</div>
