<script lang="ts">
  /** The days beside each other, each with its times, its line and what the rest of it looks like. */
  import DayLine from './DayLine.svelte'
  import Late from './Late.svelte'
  import TextField from '../parts/TextField.svelte'
  import NumberField from '../parts/NumberField.svelte'
  import TimeField from './TimeField.svelte'
  import { dayPath, daysOf, type OpenProduction } from '../lib/production.svelte'
  import type { Production } from '../lib/productionApi'
  let { open, document }: { open: OpenProduction; document: Production } = $props()

  const days = $derived(daysOf(document))
  const set = (day: number, field: string) => (value: unknown) => open.change([{ path: dayPath(document, day, field), value }])
  const KINDS = [
    ['lamp', 'A lamp'],
    ['screen', 'The screen'],
    ['floor', 'The floor piece'],
    ['outfit', 'An outfit'],
    ['camera', 'The camera'],
    ['person', 'Another person'],
    ['test', 'Measuring and a test'],
  ] as const
  const add = () => open.change([{ path: 'days', value: [...days, { date: null, call: '08:00', end: '18:00' }] }])
  const removeLast = () =>
    open.change([
      { path: 'shots', value: document.shots.map((shot) => (shot.day === days.length - 1 ? { ...shot, day: 0, pinned: null } : shot)) },
      { path: 'days', value: days.slice(0, -1) },
    ])
  const bySaved = $derived(open.state?.day)
</script>

{#if bySaved}
  <p class="mb-3">
    {bySaved.change_minutes.toFixed(0)} min of change between shots{bySaved.saved_minutes > 0
      ? `, ${bySaved.saved_minutes.toFixed(0)} less than in the order typed in`
      : ''}. Drag a shot to pin it to a place.
  </p>
{/if}
<div class="grid gap-6" class:md:grid-cols-2={days.length > 1}>
  {#each days as day, n (n)}
    <section aria-label={days.length > 1 ? `Day ${n + 1}` : 'The day'} class="min-w-0">
      <div class="mb-2 flex flex-wrap items-center gap-2">
        {#if days.length > 1}<h2 class="font-semibold">Day {n + 1}</h2>{/if}
        <input
          type="date"
          class="input input-sm w-36"
          aria-label="Date of day {n + 1}"
          value={day.date ?? ''}
          onchange={(event) => set(n, 'date')(event.currentTarget.value || null)}
        />
        <input
          type="time"
          class="input input-sm w-28"
          aria-label="Call of day {n + 1}"
          value={day.call}
          onchange={(event) => event.currentTarget.value && set(n, 'call')(event.currentTarget.value)}
        />
        <input
          type="time"
          class="input input-sm w-28"
          aria-label="End of day {n + 1}"
          value={day.end}
          onchange={(event) => event.currentTarget.value && set(n, 'end')(event.currentTarget.value)}
        />
      </div>
      <DayLine {open} {document} day={n} />
      <Late {open} {document} day={n} />
      <details class="mt-2">
        <summary class="label-text cursor-pointer">Breaks</summary>
        {#each day.breaks as rest, k (k)}
          <div class="mt-1 flex flex-col gap-1 border-t border-line pt-1">
            <TextField label="Break" value={rest.name} onchange={set(n, `breaks[${k}].name`)} />
            <TimeField label="About" value={rest.at} onchange={(at) => at && set(n, `breaks[${k}].at`)(at)} />
            <NumberField
              label="Minutes"
              digits={0}
              step={5}
              min={0}
              max={600}
              value={rest.minutes}
              onchange={set(n, `breaks[${k}].minutes`)}
            />
            <button type="button" class="btn btn-sm self-start" onclick={() => set(n, 'breaks')(day.breaks.filter((_, at) => at !== k))}
              >Remove {rest.name}</button
            >
          </div>
        {/each}
        <button
          type="button"
          class="btn btn-sm mt-1"
          onclick={() => set(n, 'breaks')([...day.breaks, { at: '13:00', minutes: 45, name: 'Lunch' }])}>Add a break</button
        >
      </details>
    </section>
  {/each}
</div>
<div class="mt-3 flex gap-1.5">
  <button type="button" class="btn btn-sm" onclick={add}>Add a day</button>
  {#if days.length > 1}<button type="button" class="btn btn-sm" onclick={removeLast}>Remove the last day</button>{/if}
</div>
<details class="mt-4 max-w-xl">
  <summary class="label-text cursor-pointer">To bring</summary>
  <ul>
    {#each open.state?.packing ?? [] as item (`${item.kind} ${item.what}`)}
      <li class="flex justify-between gap-3 border-t border-line py-0.5">
        <span>{item.count} × {item.what} <span class="label-text">{item.kind}</span></span>
        {#if item.missing}<span class="text-primary">{item.missing} not in the kit</span>{/if}
      </li>
    {/each}
  </ul>
</details>
<details class="mt-4 max-w-80">
  <summary class="label-text cursor-pointer">What a change takes, minutes</summary>
  {#each KINDS as [kind, word] (kind)}
    <NumberField
      label={word}
      digits={0}
      step={1}
      min={0}
      max={600}
      value={document.minutes[kind]}
      onchange={(value) => open.change([{ path: `minutes.${kind}`, value }])}
    />
  {/each}
  <NumberField
    label="Screen shots a day at most"
    digits={0}
    step={1}
    min={1}
    max={60}
    value={document.most_screen_shots}
    onchange={(value) => open.change([{ path: 'most_screen_shots', value: Math.round(value) }])}
  />
</details>
