<script lang="ts">
  /** The measuring desk: drop or paste a frame, read what it really shows beside what was planned. */
  import Picture from './Picture.svelte'
  import Comparison from './Comparison.svelte'
  import Vectorscope from './Vectorscope.svelte'
  import Waveform from './Waveform.svelte'
  import Zones from './Zones.svelte'
  import * as api from '../../lib/api'
  import { session } from '../../lib/session.svelte'
  import type { Comparison as Compared, Frame, FrameSummary } from '../../lib/types'

  let frames = $state.raw<FrameSummary[]>([])
  let frame = $state.raw<Frame | null>(null)
  let compared = $state.raw<Compared | null>(null)
  let error = $state('')
  let busy = $state('')
  let over = $state(false)
  let loaded = $state(false)

  async function run(what: string, work: () => Promise<void>) {
    busy = what
    try {
      await work()
      error = ''
    } catch (err) {
      error = (err as Error).message
    }
    busy = ''
  }
  async function show(id: number) {
    await run('Reading', async () => {
      frame = await api.getFrame(id)
      compared = await api.compareFrame(id)
    })
  }
  async function add(files: Iterable<File>) {
    for (const file of files) {
      await run(`Measuring ${file.name}`, async () => {
        frame = await api.importFrame(session.id, file)
        frames = await api.listFrames(session.id)
        compared = await api.compareFrame(frame.id)
      })
    }
  }
  const remove = (id: number) =>
    run('Removing', async () => {
      await api.deleteFrame(id)
      frames = await api.listFrames(session.id)
      frame = null
      compared = null
      if (frames[0]) await show(frames[0].id)
    })
  function drop(event: DragEvent) {
    event.preventDefault()
    over = false
    void add(event.dataTransfer?.files ?? [])
  }
  function paste(event: ClipboardEvent) {
    const files = [...(event.clipboardData?.files ?? [])]
    if (files.length) void add(files)
  }
  function pick(event: Event) {
    const input = event.currentTarget as HTMLInputElement
    void add([...(input.files ?? [])]).then(() => (input.value = ''))
  }
  $effect(() => {
    const id = session.id
    void run('Reading', async () => {
      frames = await api.listFrames(id)
      loaded = true
    }).then(() => {
      if (frames[0] && !frame) void show(frames[0].id)
    })
  })
</script>

<svelte:window onpaste={paste} />

<!-- svelte-ignore a11y_no_static_element_interactions -->
<div
  class="grid h-full min-h-0 grid-cols-1 outline-offset-[-4px] lg:grid-cols-[minmax(0,1fr)_30rem]"
  class:outline-2={over}
  class:outline-primary={over}
  ondragover={(event) => (event.preventDefault(), (over = true))}
  ondragleave={() => (over = false)}
  ondrop={drop}
>
  <section aria-label="Frame from the set" class="flex min-h-0 flex-col border-line p-3 lg:border-r">
    <div class="flex flex-wrap items-center gap-2 pb-2">
      <label class="decide">
        Measure a frame
        <input type="file" class="sr-only" multiple accept=".png,.jpg,.jpeg,.tif,.tiff,.exr,.dpx" onchange={pick} />
      </label>
      {#each frames as one (one.id)}
        <button type="button" class="plain max-w-52 truncate" class:chosen={frame?.id === one.id} aria-pressed={frame?.id === one.id} onclick={() => show(one.id)}>{one.name}</button>
      {/each}
      <span class="label-text" role="status">{busy}</span>
      {#if frame}<button type="button" class="plain ml-auto" onclick={() => remove(frame!.id)}>Remove this frame</button>{/if}
    </div>
    {#if error}<p role="alert" class="mb-2 border border-primary p-2 text-primary">{error}</p>{/if}
    {#if frame}
      <Picture {frame} />
      <Zones {frame} {compared} />
    {:else if loaded && !busy}
      <div class="grid flex-1 place-items-center border border-dashed border-line p-8 text-center">
        <p class="max-w-md text-quiet">
          <span class="mb-2 block text-reading text-ink">Drop a frame from the camera here, or paste one.</span>
          PNG, JPEG, TIFF, EXR or DPX. Its screen is found, and level, evenness, spots and noise are read and set beside this plan.
        </p>
      </div>
    {/if}
  </section>
  <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
  <section aria-label="Readings" tabindex="0" class="min-h-0 overflow-y-auto p-3">
    {#if frame}
      <Comparison {frame} {compared} />
      <div class="mt-3 grid grid-cols-[1fr_9.5rem] gap-3">
        <Waveform {frame} {compared} />
        <Vectorscope {frame} />
      </div>
    {/if}
  </section>
</div>
