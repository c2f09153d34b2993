<script lang="ts">
  /** The sheet: section above, floor below, aligned on one z axis; the inspector beside what is selected. */
  import { tick } from 'svelte'
  import Dimensions from './Dimensions.svelte'
  import Floor from './Floor.svelte'
  import Inspector from './Inspector.svelte'
  import Section from './Section.svelte'
  import type { Board } from '../lib/board'
  import { oneStop } from '../lib/drag'
  import { session } from '../lib/session.svelte'
  import { sheetOf, type Sheet, type Shown } from '../lib/sheet'
  import { Zoom } from '../lib/zoom.svelte'
  import type { Change, Thing } from '../lib/types'

  const FIELDS_PX = 256
  let width = $state(700)
  let height = $state(640)
  /** While something is dragged the sheet keeps its scale, or the drawing would run from the hand. */
  let held = $state.raw<Sheet | null>(null)

  const plan = $derived(session.plan!)
  let shown = $state<Shown>('room')
  const zoom = new Zoom()
  const sheet = $derived(held ?? sheetOf(plan, width, height, shown))

  const select = (thing: Thing) => (session.selected = thing)
  function change(changes: Change[]) {
    held ??= sheetOf(plan, width, height, shown)
    session.change(changes, false)
  }
  function settle() {
    held = null
    session.settle()
  }
  const board: Board = $derived({
    plan,
    evaluation: session.evaluation,
    selected: session.selected,
    select,
    change,
    settle,
  })
  let frame = $state<HTMLElement>()
  let fields = $state<HTMLElement>()
  let place = $state<'left' | 'right'>('right')
  /** The fields keep to the side of the drawing where what they edit is not, wherever it was brought near. */
  $effect(() => {
    void [session.selected, plan, zoom.viewBox(width, height), shown]
    // Where things are is asked for when the page is about to be drawn, not at each of a drag's steps.
    const next = requestAnimationFrame(keepClear)
    return () => cancelAnimationFrame(next)
  })
  function keepClear() {
    const own = frame?.querySelector('.handle.pick')?.getBoundingClientRect()
    if (!own || !frame) return
    const box = frame.getBoundingClientRect()
    // No part of a handle lies beneath them: it is taken hold of at its edge, too.
    const covered = place === 'right' ? own.right - box.left > box.width - FIELDS_PX : own.left - box.left < FIELDS_PX
    if (covered) place = (own.left + own.right) / 2 - box.left > box.width / 2 ? 'left' : 'right'
  }
  /** Where the focus goes back to when the fields close. */
  let opener: HTMLElement | SVGElement | null = null
  $effect(() => {
    if (!session.selected) return
    const now = document.activeElement as HTMLElement | null
    if (now && !fields?.contains(now)) opener = now
    // A button that opens them hands the focus on; whoever took hold of a handle keeps it and goes on with Tab.
    if (now?.closest('[data-opens-fields]')) void tick().then(intoFields)
  })
  const intoFields = () => fields?.querySelector<HTMLElement>('input, select, button:not([aria-label="Close the fields"])')?.focus()
  function key(event: KeyboardEvent) {
    const held = (event.target as Element).classList.contains('pick')
    if (event.key === 'Tab' && !event.shiftKey && held && fields) {
      event.preventDefault()
      intoFields()
    } else if (zoom.key(event)) event.preventDefault()
  }
  function close() {
    session.selected = null
    if (opener?.isConnected) opener.focus({ preventScroll: true })
    else frame?.querySelector<SVGElement>('.handle[tabindex="0"]')?.focus({ preventScroll: true })
  }
</script>

<div bind:this={frame} class="relative h-full min-h-0 w-full overflow-hidden" bind:clientWidth={width} bind:clientHeight={height}>
  <!-- svelte-ignore a11y_click_events_have_key_events, a11y_no_noninteractive_element_interactions -->
  <svg
    {width}
    {height}
    viewBox={zoom.viewBox(width, height)}
    class="block touch-none select-none"
    role="group"
    data-handles
    use:oneStop
    aria-label="The set to scale: side section above, floor from above below"
    onclick={(event) => event.target === event.currentTarget && (session.selected = null)}
    onkeydown={key}
    onwheel={zoom.wheel}
    onpointerdown={zoom.down}
    onpointermove={zoom.moved}
    onpointerup={zoom.up}
    onpointercancel={zoom.up}
  >
    <Dimensions {plan} {sheet} />
    <Section {board} {sheet} tried={session.ghost?.plan ?? null} />
    <Floor {board} {sheet} tried={session.ghost?.plan ?? null} />
  </svg>
  <div class="absolute bottom-2 left-2 z-10 flex gap-1 max-md:bottom-16" role="group" aria-label="How near the drawing is">
    <button
      type="button"
      class="btn btn-sm"
      aria-pressed={shown === 'set'}
      title="As large as what stands in it"
      onclick={() => ((shown = shown === 'set' ? 'room' : 'set'), zoom.whole())}>set</button
    >
    <button type="button" class="btn btn-sm w-7" aria-label="Nearer" title="Nearer (+, wheel)" onclick={() => zoom.by(1.25)}>+</button>
    <button
      type="button"
      class="btn btn-sm w-7"
      aria-label="Further away"
      title="Further away (−, wheel)"
      disabled={zoom.factor === 1}
      onclick={() => zoom.by(0.8)}>−</button
    >
    {#if zoom.factor > 1}<button type="button" class="btn btn-sm" title="The whole (0)" onclick={() => zoom.whole()}>whole</button>{/if}
  </div>
  {#if session.selected}
    <!-- svelte-ignore a11y_no_static_element_interactions -->
    <div
      bind:this={fields}
      onkeydown={(event) => event.key === 'Escape' && (event.stopPropagation(), close())}
      class="absolute top-2 flex max-h-[calc(100%-3.5rem)] w-60 flex-col border border-line bg-base-100 shadow-xl max-md:fixed max-md:inset-x-0 max-md:top-auto max-md:bottom-0 max-md:z-30 max-md:max-h-[55vh] max-md:w-full"
      class:left-2={place === 'left'}
      class:right-2={place === 'right'}
    >
      <Inspector {close} />
    </div>
  {/if}
</div>
