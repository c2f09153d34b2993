<script lang="ts">
  /** Drop or paste frames and clips, read what they really show beside what was planned, and what to do about it. */
  import Cause from './Cause.svelte'
  import { CLIPS, STILLS } from '../../lib/fileKinds'
  import ClipFacts from './ClipFacts.svelte'
  import FileColour from './FileColour.svelte'
  import Comparison from './Comparison.svelte'
  import Histogram from './Histogram.svelte'
  import Picture from './Picture.svelte'
  import Since from './Since.svelte'
  import Vectorscope from './Vectorscope.svelte'
  import WatchedFolder from './WatchedFolder.svelte'
  import Waveform from './Waveform.svelte'
  import Zones from './Zones.svelte'
  import * as api from '../../lib/api'
  import { cancelImport, causeOf, importAny, type Progress } from '../../lib/checkApi'
  import { onDestroy, untrack } from 'svelte'
  import { address, addressed } from '../../lib/address'
  import { listenFor } from '../../lib/events'
  import { session } from '../../lib/session.svelte'
  import type { Cause as Caused, Comparison as Compared, Frame, FrameSummary } from '../../lib/types'
  let { wanted = null }: { wanted?: number | null } = $props()

  let frames = $state.raw<FrameSummary[]>([])
  let frame = $state.raw<Frame | null>(null)
  let compared = $state.raw<Compared | null>(null)
  let cause = $state.raw<Caused | null>(null)
  let error = $state('')
  let busy = $state('')
  let job = $state('')
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
    job = ''
  }
  /** What arrives after this part was left is nobody's: it may not write into another part's address. */
  let left = false
  onDestroy(() => (left = true))
  async function look(shown: Frame) {
    if (left) return
    frame = shown
    address('frame', String(shown.id))
    cause = null
    const beside = await api.compareFrame(shown.id)
    // Somebody has gone on to another frame, or taken this one away.
    if (frame?.id !== shown.id) return
    compared = beside
    const found = await causeOf(shown.id)
    if (frame?.id === shown.id) cause = found
  }
  const show = (id: number) => run('Reading', async () => look(await api.getFrame(id)))
  const telling = (what: string) => (share: number, id: string) => {
    job = id
    busy = `${what}, ${(100 * share).toFixed(0)} %`
  }
  /** A clip takes its time: who has gone on to another frame stays there. */
  const reread = (work: (progress: Progress) => Promise<Frame>) =>
    run('Reading again', async () => {
      const again = await work(telling('Reading again'))
      if (frame?.id === again.id) await look(again)
    })
  /** One after another; what cannot be read is told at the end and stops none of the others. Cancel ends them all. */
  async function add(files: File[]) {
    const failed: string[] = []
    let ended = false
    for (const [i, file] of files.entries()) {
      const which = files.length > 1 ? `${file.name}, ${i + 1} of ${files.length}` : file.name
      await run(`Measuring ${which}`, async () => {
        const read = await importAny(session.id, file, telling(`Measuring ${which}`))
        frames = await api.listFrames(session.id)
        await look(read)
      })
      if (error) failed.push(error)
      ended = error.endsWith(': cancelled')
      if (left || ended) break
    }
    if (files.length > 1 && failed.length && !ended) error = `${failed.length} of ${files.length} could not be read. ${failed.join(' ')}`
  }
  /** Of a folder only what a camera writes. */
  const ofCamera = (files: File[]) => {
    const known = `${STILLS},${CLIPS}`.split(',')
    return files.filter((file) => known.some((ending) => file.name.toLowerCase().endsWith(ending)))
  }
  $effect(() => {
    const id = session.id
    return listenFor(
      ['frames'],
      id,
      () =>
        void api
          .listFrames(id)
          .then((found) => (frames = found))
          .catch(() => {}),
    )
  })
  let removed = $state.raw<Frame | null>(null)
  const remove = (id: number) =>
    run('Removing', async () => {
      removed = frame
      frame = null
      compared = null
      cause = null
      await api.deleteFrame(id)
      frames = await api.listFrames(session.id)
      if (frames[0]) await look(await api.getFrame(frames[0].id))
    })
  const bringBack = (id: number) =>
    run('Reading', async () => {
      const back = await api.restoreFrame(id)
      removed = null
      frames = await api.listFrames(session.id)
      await look(back)
    })
  async function arrived() {
    const known = frames[0]?.id
    frames = await api.listFrames(session.id)
    if (frames[0] && frames[0].id !== known) await show(frames[0].id)
  }
  function drop(event: DragEvent) {
    event.preventDefault()
    over = false
    void add([...(event.dataTransfer?.files ?? [])])
  }
  function paste(event: ClipboardEvent) {
    const files = [...(event.clipboardData?.files ?? [])]
    if (files.length) void add(files)
  }
  function pick(event: Event) {
    const input = event.currentTarget as HTMLInputElement
    const files = [...(input.files ?? [])]
    void add(input.webkitdirectory ? ofCamera(files) : files).then(() => (input.value = ''))
  }
  /** The plan as it is now beside the frame, once the plan was saved. */
  let seenRevision = 0
  $effect(() => {
    if (session.saving !== 'saved' || !frame || session.revision === seenRevision) return
    const id = frame.id
    if (seenRevision)
      void run('Comparing', async () => {
        compared = await api.compareFrame(id)
        cause = await causeOf(id)
      })
    seenRevision = session.revision
  })
  $effect(() => {
    const id = session.id
    const first = wanted ?? untrack(() => Number(addressed('frame')))
    void run('Reading', async () => {
      frames = await api.listFrames(id)
      loaded = true
    }).then(() => {
      const start = frames.find((one) => one.id === first)?.id ?? frames[0]?.id
      if (start && !frame) void show(start)
    })
  })
</script>

<svelte:window onpaste={paste} />

<!-- svelte-ignore a11y_no_static_element_interactions -->
<div
  class="grid h-full min-h-0 grid-cols-1 max-lg:h-auto max-lg:auto-rows-max outline-offset-[-4px] lg:grid-cols-[minmax(0,1fr)_30rem]"
  class:outline-2={over}
  class:outline-primary={over}
  ondragover={(event) => (event.preventDefault(), (over = true))}
  ondragleave={() => (over = false)}
  ondrop={drop}
>
  <section aria-label="Frame from the set" class="flex min-h-0 flex-col border-line p-3 lg:border-r">
    <div class="flex flex-wrap items-center gap-2 pb-2">
      <label class="btn btn-sm btn-primary">
        Measure a frame
        <input type="file" class="sr-only" multiple accept="{STILLS},{CLIPS}" onchange={pick} />
      </label>
      <label class="btn btn-sm max-sm:hidden">
        A folder
        <input type="file" class="sr-only" webkitdirectory aria-label="Measure a folder of frames and clips" onchange={pick} />
      </label>
      {#each frames.slice(0, 6) as one (one.id)}
        <button
          type="button"
          class="btn btn-sm max-w-44 truncate"
          class:btn-active={frame?.id === one.id}
          aria-pressed={frame?.id === one.id}
          onclick={() => show(one.id)}>{one.name}</button
        >
      {/each}
      {#if frames.length > 6}
        <select
          class="select select-sm !w-auto"
          aria-label="Older frames"
          value=""
          onchange={(event) => event.currentTarget.value && show(Number(event.currentTarget.value))}
        >
          <option value="">{frames.length - 6} older</option>
          {#each frames.slice(6) as one (one.id)}<option value={String(one.id)}>{one.name}</option>{/each}
        </select>
      {/if}
      <span class="label-text" role="status">{busy}</span>
      {#if job}<button type="button" class="btn btn-sm" onclick={() => cancelImport(job)}>Cancel</button>{/if}
      {#if frame}<button type="button" class="btn btn-sm ml-auto" onclick={() => remove(frame!.id)}>Remove this frame</button>{/if}
    </div>
    {#if error}<p role="alert" class="mb-2 border border-primary p-2 text-primary">{error}</p>{/if}
    {#if removed}
      <p role="status" class="mb-2 flex items-center justify-between border border-line p-2">
        <span>“{removed.name}” is removed.</span>
        <button type="button" class="btn btn-sm" onclick={() => bringBack(removed!.id)}>Bring it back</button>
      </p>
    {/if}
    {#if frame}
      {#if compared}<div class="pb-2 lg:hidden"><Cause verdict={compared.verdict} {cause} /></div>{/if}
      {#key frame.id}<Picture {frame} {frames} {compared} reread={(read) => run('Reading again', () => look(read))} />{/key}
    {:else if loaded && !busy}
      <div class="grid flex-1 place-items-center border border-dashed border-line p-8 text-center">
        <p class="max-w-md text-quiet">
          <span class="mb-2 block text-reading text-ink">Drop a frame or a clip from the camera here, or paste one.</span>
          PNG, JPEG, HEIC, TIFF, EXR, DPX or raw; MP4, MOV, MKV, MXF, AVI or MTS. Its screen is found, and level, evenness, spots and noise are
          read and set beside this plan. No camera at hand? The stand-in camera shows this set as somebody built it.
        </p>
      </div>
    {/if}
    <WatchedFolder {arrived} />
  </section>
  <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
  <section aria-label="Readings" tabindex="0" class="relative min-h-0 overflow-y-auto p-3">
    {#if frame}
      {#if compared}<div class="max-lg:hidden"><Cause verdict={compared.verdict} {cause} /></div>{/if}
      <div class="mt-3 grid grid-cols-[1fr_9.5rem] gap-3">
        <Waveform {frame} {compared} />
        <Vectorscope {frame} target={compared?.rows.find((row) => row.name === 'Hue')?.planned ?? null} />
      </div>
      <Comparison {frame} {compared} />
      {#key frame.id}<Since {frame} {frames} />{/key}
      {#key frame.id}<FileColour {frame} {reread} />{/key}
      {#if frame.clip}<ClipFacts clip={frame.clip} differs={cause?.recording ?? []} />{/if}
      <Histogram {frame} />
      <Zones {frame} {compared} />
    {/if}
  </section>
</div>
