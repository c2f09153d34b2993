<script lang="ts">
  /** A day to look at: rigging, changes, shots and breaks as long as they take; a shot is dragged to another place. */
  import { nameOf, clock, type OpenProduction } from '../lib/production.svelte'
  import { planDays, type DayEntry, type DayPlan, type Production } from '../lib/productionApi'
  import { opened } from '../lib/resource.svelte'
  let { open, document, day }: { open: OpenProduction; document: Production; day: number } = $props()

  const PX = 1.15
  const LEAST = 15
  const WORDS: Record<DayEntry['kind'], string> = {
    rig: 'Rig',
    light: 'Light',
    test: 'Test',
    change: 'Change',
    wait: 'Wait',
    shot: '',
    break: '',
    wrap: 'Wrap',
  }
  const trial = opened<DayPlan>()
  /** The shot in hand, and the place it is held over. */
  let held = $state.raw<{ id: string; place: number; from: number } | null>(null)
  const plan = $derived((held && trial.value) || open.state?.day)
  const entries = $derived(plan?.entries.filter((entry) => entry.day === day) ?? [])
  const order = $derived(entries.filter((entry) => entry.kind === 'shot').map((entry) => entry.shot!))
  const shotOf = (id: string | null) => document.shots.find((shot) => shot.id === id)
  const late = $derived(plan?.overs[day] ?? 0)

  /** The document with the shot pinned to a place; what was pinned there is let go. */
  function pinned(id: string, place: number | null): Production {
    const shots = document.shots.map((shot) =>
      shot.id === id
        ? { ...shot, pinned: place }
        : place !== null && shot.day === day && shot.pinned === place
          ? { ...shot, pinned: null }
          : shot,
    )
    return { ...document, shots }
  }
  function pin(id: string, place: number | null) {
    open.change([{ path: 'shots', value: pinned(id, place).shots }])
  }
  function over(place: number) {
    if (!held || held.place === place || place < 0 || place >= order.length) return
    held = { ...held, place }
    const id = held.id
    void trial.ask((signal) => planDays(pinned(id, place), signal), 60)
  }
  function down(event: PointerEvent, id: string) {
    if (event.button !== 0 || (event.target as Element).closest('button')) return
    ;(event.currentTarget as Element).setPointerCapture(event.pointerId)
    trial.clear()
    held = { id, place: order.indexOf(id), from: event.clientY }
  }
  let line = $state<HTMLElement>()
  function moved(event: PointerEvent) {
    if (!held || !line) return
    const shots = [...line.querySelectorAll<HTMLElement>('[data-shot]')]
    const before = shots.filter((one) => {
      const box = one.getBoundingClientRect()
      return one.dataset.shot !== held!.id && event.clientY > (box.top + box.bottom) / 2
    })
    over(before.length)
  }
  function up(event: PointerEvent) {
    const hand = held
    held = null
    if (hand && Math.abs(event.clientY - hand.from) > 6) pin(hand.id, hand.place)
  }
</script>

<ol bind:this={line} class="relative border-l border-line" aria-label="Entries of the day">
  {#each entries as entry, i (`${entry.kind}${entry.shot}${i}`)}
    {@const shot = shotOf(entry.shot)}
    {@const high = Math.max(LEAST, entry.minutes * PX)}
    {#if entry.kind === 'shot' && shot}
      {@const place = order.indexOf(shot.id)}
      <li
        class="relative flex touch-none cursor-grab select-none items-start gap-2 overflow-hidden border-y border-line bg-base-300 py-0.5 pr-1 pl-2"
        class:outline-2={held?.id === shot.id}
        class:outline-primary={held?.id === shot.id}
        style:min-height="{high}px"
        data-shot={shot.id}
        onpointerdown={(event) => down(event, shot.id)}
        onpointermove={moved}
        onpointerup={up}
        onpointercancel={() => (held = null)}
      >
        <span class="w-10 shrink-0 text-quiet">{entry.at}</span>
        <span class="min-w-0 flex-1"
          ><span class="font-semibold">{shot.title || shot.id}</span>
          <span class="label-text block"
            >{[`${entry.minutes} min`, nameOf(document, shot.person), entry.why].filter(Boolean).join(' · ')}</span
          ></span
        >
        <span class="flex shrink-0 gap-1">
          <button
            type="button"
            class="btn btn-sm w-7"
            disabled={place <= 0}
            aria-label="{shot.title || shot.id} earlier"
            onclick={() => pin(shot.id, place - 1)}>↑</button
          >
          <button
            type="button"
            class="btn btn-sm w-7"
            disabled={place >= order.length - 1}
            aria-label="{shot.title || shot.id} later"
            onclick={() => pin(shot.id, place + 1)}>↓</button
          >
          <button
            type="button"
            class="btn btn-sm"
            aria-pressed={shot.pinned !== null}
            aria-label="Pin {shot.title || shot.id}"
            onclick={() => pin(shot.id, shot.pinned === null ? place : null)}>pin</button
          >
        </span>
      </li>
    {:else}
      <li class="flex gap-2 overflow-hidden pr-1 pl-2 text-quiet" class:wash={entry.kind === 'change'} style:min-height="{high}px">
        <span class="w-10 shrink-0">{entry.at}</span>
        <span class="min-w-0"
          >{WORDS[entry.kind] || entry.why}{entry.minutes
            ? `, ${entry.minutes.toFixed(0)} min`
            : ''}{#if WORDS[entry.kind] && entry.why}<span class="label-text">: {entry.why}</span>{/if}</span
        >
      </li>
    {/if}
  {/each}
</ol>
{#if plan}
  <p class="mt-1" class:text-primary={late > 0} role="status">
    Ends {plan.ends[day]}{late > 0 ? `, ${late.toFixed(0)} min late` : `, ${clock(Math.max(0, -late))} h to spare`}{#if held && open.state}:
      {plan.change_minutes.toFixed(0)} min of change, now {open.state.day.change_minutes.toFixed(0)}{/if}
  </p>
{/if}

<style>
  .wash {
    background: repeating-linear-gradient(-45deg, transparent 0 5px, var(--line) 5px 6px);
  }
  .wash > span {
    background: var(--color-base-100);
    padding-inline: 0.25rem;
    height: fit-content;
  }
</style>
