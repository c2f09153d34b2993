<script lang="ts">
  /** One set-up: sight line on top; below it the drawing, the frame and the findings, or the check. */
  import { listenFor } from '../lib/events'
  import Tabs from '../parts/Tabs.svelte'
  import { push, router } from 'svelte-spa-router'
  import { address, addressed } from '../lib/address'
  import TopBar from './TopBar.svelte'
  import TourBar from './TourBar.svelte'
  import Check from '../stations/check/Check.svelte'
  import ConflictBar from '../stations/ConflictBar.svelte'
  import Drawing from '../stations/Drawing.svelte'
  import Findings from '../stations/Findings.svelte'
  import FrameView from '../stations/FrameView.svelte'
  import GhostBar from '../stations/GhostBar.svelte'
  import LightPanel from '../stations/light/LightPanel.svelte'
  import CameraPanel from '../stations/camera/CameraPanel.svelte'
  import SubjectPanel from '../stations/subject/SubjectPanel.svelte'
  import Numbers from '../stations/Numbers.svelte'
  import ScreenPanel from '../stations/screen/ScreenPanel.svelte'
  import PlatePanel from '../stations/plate/PlatePanel.svelte'
  import SpacePanel from '../stations/SpacePanel.svelte'
  import SightLine from '../stations/SightLine.svelte'
  import TestKey from '../stations/key/TestKey.svelte'
  import { untrack } from 'svelte'
  import { session } from '../lib/session.svelte'
  import { STATIONS, type StationId } from '../lib/stations'

  let { params }: { params: { id: string; station?: string } } = $props()

  const station = $derived((STATIONS.find((s) => s.id === params.station)?.id ?? null) as StationId | null)
  const TABS = [
    ['findings', 'Findings'],
    ['numbers', 'Numbers'],
  ] as const
  /** The address carries which tab is open. */
  const tab = $derived<(typeof TABS)[number][0]>(addressed('tab') === 'numbers' ? 'numbers' : 'findings')
  let findings = $state<HTMLElement>()
  /** For those who hear the page: what the whole set is now, once it is worked out. */
  const spoken = $derived.by(() => {
    const found = session.evaluation?.check.findings.filter((f) => f.severity !== 'fine') ?? []
    if (!session.evaluation || session.saving !== 'saved') return ''
    const stops = found.filter((f) => f.severity === 'stop').length
    if (stops) return `Will not do as it is: ${stops} of ${found.length} open findings stop it`
    return found.length ? `Usable: ${found.length} open` : 'Good: nothing is open'
  })
  /** On a phone one of the parts is shown at a time. */
  let pane = $state<'findings' | 'drawing' | 'frame'>('findings')

  $effect(() => {
    const id = Number(params.id)
    // What another page changed while this one was elsewhere is asked for on entering.
    if (id !== session.id) void session.open(id)
    else untrack(() => void session.heard())
  })

  // The worst comes first: another station does not open in the middle of what it tells.
  $effect(() => {
    void [params.id, station, tab]
    findings?.scrollTo(0, 0)
  })

  function open(id: StationId) {
    const same = station === id
    void push(same ? `/setup/${params.id}` : `/setup/${params.id}/${id}`)
    const thing = STATIONS.find((s) => s.id === id)!.thing
    session.selected = same ? null : thing
  }
  function key(event: KeyboardEvent) {
    const target = event.target as HTMLElement
    if (target.closest('input, select, textarea')) return
    const n = Number(event.key)
    if (!event.ctrlKey && !event.metaKey && !event.altKey && n >= 1 && n <= STATIONS.length) open(STATIONS[n - 1].id)
    else if ((event.key === 'Delete' || event.key === 'Backspace') && session.selected) session.removeSelected()
    else if (event.key === 'k' && session.ghost) session.keepGhost()
    else if (event.key === 'Escape') {
      if (session.ghost) session.dropGhost()
      else session.selected = null
    } else if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'z') {
      event.preventDefault()
      void (event.shiftKey ? session.redo() : session.undo())
    } else if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'y') {
      event.preventDefault()
      void session.redo()
    }
  }
  const leaving = (event: BeforeUnloadEvent) => {
    if (session.saving !== 'saved') {
      void session.save()
      event.preventDefault()
    }
  }
  $effect(() => listenFor(['setups'], session.id, () => void session.heard()))
  // What the kit has is judged, too.
  $effect(() => listenFor(['kit'], session.id, () => session.judgeAgain()))
</script>

<svelte:window onkeydown={key} onbeforeunload={leaving} />
<svelte:head><title>{session.plan?.title ?? 'Set-up'} · Ausblick</title></svelte:head>

<div class="flex min-h-dvh flex-col md:h-dvh">
  {#if station !== 'key' && station !== 'check'}
    <nav aria-label="Shortcut">
      <a class="skip" href={`#${router.location}`} onclick={(event) => (event.preventDefault(), findings?.focus())}>To the findings</a>
    </nav>
  {/if}
  <p class="sr-only" role="status" aria-live="polite">{spoken}</p>
  <TopBar />
  {#if session.error}<p role="alert" class="border-b border-primary px-4 py-1.5 text-primary">{session.error}</p>{/if}
  {#if session.conflict}<ConflictBar conflict={session.conflict} />{/if}
  {#if session.plan}
    <SightLine plan={session.plan} evaluation={session.evaluation} current={station} {open} />
    <TourBar {station} />
    {#if station === 'key'}
      <main class="min-h-0 flex-1 md:overflow-hidden"><TestKey plan={session.plan} /></main>
    {:else if station === 'check'}
      <main class="min-h-0 flex-1 md:overflow-hidden"><Check /></main>
    {:else}
      <main
        class="grid min-h-0 flex-1 grid-cols-1 md:grid-rows-[minmax(0,1fr)_minmax(0,1fr)] lg:grid-cols-[minmax(0,1fr)_min(34rem,46vw)] lg:grid-rows-1"
      >
        <section
          aria-label="Drawing of the set"
          class="min-h-0 border-line max-md:h-[72vh] max-md:pb-16 lg:border-r"
          class:max-md:hidden={pane !== 'drawing'}
        >
          <Drawing />
        </section>
        <div
          class="flex min-h-0 flex-col border-line max-md:pb-16 md:max-lg:flex-row-reverse md:max-lg:border-t"
          class:max-md:hidden={pane === 'drawing'}
        >
          <section
            aria-label="Frame"
            class="h-[min(19.5rem,42vh)] shrink-0 border-line p-3 md:max-lg:h-72 md:max-lg:w-1/2 lg:border-b"
            class:max-md:hidden={pane !== 'frame'}
            class:lg:hidden={station === 'plate' && session.plateOpen}
          >
            <FrameView plan={session.plan} evaluation={session.evaluation} trial={session.ghost} />
          </section>
          <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
          <section
            bind:this={findings}
            aria-label="Findings and numbers"
            aria-busy={session.remediesAre === 'coming'}
            tabindex="0"
            class="relative min-h-0 flex-1 overflow-y-auto px-4 pb-3"
            class:max-md:hidden={pane !== 'findings'}
          >
            <Tabs
              label="What is told"
              value={tab}
              options={TABS}
              onchange={(which) => address('tab', which === 'numbers' ? which : null)}
              class="sticky top-0 z-10 bg-base-100 pt-1"
            />
            {#if !session.evaluation}
              <div class="py-4" role="status">
                <p class="text-quiet">Working out the light of this set</p>
                <progress class="progress mt-2 w-full" aria-label="Working out the light"></progress>
              </div>
            {/if}
            {#if tab === 'findings'}<Findings evaluation={session.evaluation} {station} part="own" />{/if}
            {#if station === 'light'}<LightPanel plan={session.plan} />{:else if station === 'subject'}<SubjectPanel
                plan={session.plan}
              />{:else if station === 'camera'}<CameraPanel plan={session.plan} />{:else if station === 'space'}<SpacePanel
                plan={session.plan}
              />{:else if station === 'plate'}<PlatePanel plan={session.plan} />{:else if station === 'screen'}<ScreenPanel
                plan={session.plan}
              />{/if}
            {#if tab === 'findings'}<Findings evaluation={session.evaluation} {station} part="rest" />{:else}<Numbers
                evaluation={session.evaluation}
              />{/if}
          </section>
        </div>
      </main>
      <nav aria-label="Parts" class="fixed inset-x-0 bottom-0 z-20 grid grid-cols-3 border-t border-line bg-base-200 md:hidden">
        {#each [['findings', 'Findings'], ['drawing', 'Drawing'], ['frame', 'Frame']] as const as [which, word] (which)}
          <button
            type="button"
            class="h-14 cursor-pointer {pane === which ? 'text-primary' : 'text-quiet'}"
            aria-pressed={pane === which}
            onclick={() => (pane = which)}>{word}</button
          >
        {/each}
      </nav>
    {/if}
    <GhostBar />
  {:else if !session.error}
    <p class="p-8 text-quiet" role="status">Opening the set-up</p>
  {:else}
    <p class="p-8"><a class="text-primary underline" href="#/">Back to the set-ups</a></p>
  {/if}
</div>
