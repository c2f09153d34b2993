<script lang="ts">
  /** The plate: a picture that is read and marked, or a few words, or not known yet; and the brief that follows. */
  import { STILLS } from '../../lib/fileKinds'
  import Brief from './Brief.svelte'
  import Sun from './Sun.svelte'
  import PlatePicture from './PlatePicture.svelte'
  import { GROUPS, pointsOf, question, type Group, type Point } from './marks'
  import Choice from '../../parts/Choice.svelte'
  import Switch from '../../parts/Switch.svelte'
  import { dropPlate, keepPlate, keptPlate, readMarks, restorePlate } from '../../lib/plateApi'
  import { round } from '../../lib/changes'
  import { session } from '../../lib/session.svelte'
  import type { MarksResult, Plan, PlateReading } from '../../lib/types'
  let { plan }: { plan: Plan } = $props()

  let url = $state('')
  let reading = $state.raw<PlateReading | null>(null)
  let points = $state.raw<Point[]>([])
  let result = $state.raw<MarksResult | null>(null)
  let error = $state('')
  let markError = $state('')

  const p = $derived(plan.plate)
  $effect(() => () => (session.plateOpen = false))
  $effect(() => {
    const id = session.id
    keptPlate(id).then((kept) => {
      if (!kept || session.id !== id || reading) return
      reading = kept
      url = `/api/setups/${id}/plate.jpg?${Date.now()}`
      session.plateOpen = true
    })
  })
  /** A picture was replaced or removed here: it can come back. */
  let before = $state(false)
  function show(found: PlateReading) {
    reading = found
    url = `/api/setups/${session.id}/plate.jpg?${Date.now()}`
    points = []
    result = null
    error = ''
    session.plateOpen = true
  }
  async function drop() {
    await dropPlate(session.id).catch((err: Error) => void (error = err.message))
    reading = null
    url = ''
    points = []
    before = true
    session.plateOpen = false
  }
  const back = () =>
    restorePlate(session.id)
      .then(show)
      .catch((err: Error) => void (error = err.message))
  const change = (fields: Record<string, unknown>) =>
    session.change(Object.entries(fields).map(([key, value]) => ({ path: `plate.${key}`, value })))

  async function open(event: Event) {
    const input = event.currentTarget as HTMLInputElement
    const file = input.files?.[0]
    if (!file) return
    try {
      const replaced = reading !== null
      show(await keepPlate(session.id, file))
      before ||= replaced
    } catch (err) {
      error = (err as Error).message
    }
    input.value = ''
  }
  function toggle(group: Group) {
    points = points.some((q) => q.group === group) ? points.filter((q) => q.group !== group) : [...points, ...pointsOf(group)]
    void solve()
  }
  async function solve() {
    markError = ''
    if (!reading || !points.length) return void (result = null)
    // A shadow alone says nothing of the camera: that need not be asked.
    if (points.every((q) => q.group === 'thing')) {
      result = null
      return void (markError = 'mark the horizon, or lines that recede along the ground')
    }
    try {
      result = await readMarks(question(points, reading.width, reading.height, p.focal_mm_ff))
    } catch (err) {
      result = null
      markError = (err as Error).message
    }
  }
  function takeReading() {
    if (reading) change({ known: true, mean_level: round(reading.mean_level, 1), cct: Math.round(reading.cct / 50) * 50 })
  }
  function takeMarks() {
    if (!result) return
    const { camera, light } = result
    change({
      known: true,
      tilt: round(camera.tilt, 1),
      ...(camera.measured_view ? { focal_mm_ff: round(camera.focal_mm_ff, 1) } : {}),
      ...(light ? { key_azimuth: round(light.azimuth, 0), key_elevation: round(light.elevation, 0) } : {}),
    })
  }
  /** Said in words, for a plate that is only described: how bright, from where, how high, how hard, how warm. */
  const WORDS: [string, string, [string, string, Record<string, unknown>][]][] = [
    [
      'Time',
      'mean_level',
      [
        ['12', 'night', { mean_level: 12 }],
        ['25', 'dusk', { mean_level: 25 }],
        ['40', 'indoors', { mean_level: 40 }],
        ['55', 'day', { mean_level: 55 }],
        ['70', 'noon', { mean_level: 70 }],
      ],
    ],
    [
      'Light from',
      'key_azimuth',
      [
        ['-60', 'the left', { key_azimuth: -60 }],
        ['60', 'the right', { key_azimuth: 60 }],
        ['10', 'the camera', { key_azimuth: 10 }],
        ['150', 'behind', { key_azimuth: 150 }],
      ],
    ],
    [
      'Light is',
      'light',
      [
        ['one', 'from one side', { light: 'one' }],
        ['two', 'from two', { light: 'two' }],
        ['overcast', 'an overcast sky', { light: 'overcast' }],
        ['flat', 'from everywhere', { light: 'flat' }],
      ],
    ],
    [
      'The second from',
      'second_azimuth',
      [
        ['-60', 'the left', { second_azimuth: -60 }],
        ['60', 'the right', { second_azimuth: 60 }],
        ['150', 'behind', { second_azimuth: 150 }],
      ],
    ],
    [
      'How high',
      'key_elevation',
      [
        ['12', 'low', { key_elevation: 12 }],
        ['35', 'half way', { key_elevation: 35 }],
        ['60', 'high', { key_elevation: 60 }],
      ],
    ],
    [
      'Shadows',
      'softness',
      [
        ['hard', 'hard', { softness: 'hard' }],
        ['medium', 'medium', { softness: 'medium' }],
        ['soft', 'soft', { softness: 'soft' }],
      ],
    ],
    [
      'Colour',
      'cct',
      [
        ['3200', 'warm', { cct: 3200 }],
        ['4300', 'mixed', { cct: 4300 }],
        ['5600', 'daylight', { cct: 5600 }],
        ['7500', 'cold', { cct: 7500 }],
      ],
    ],
  ]
  /** With a picture only what it does not tell; a second light only where there are two. */
  const words = $derived(
    WORDS.filter(
      ([, key]) => (key !== 'second_azimuth' || p.light === 'two') && (!reading || ['softness', 'light', 'second_azimuth'].includes(key)),
    ),
  )
  const nearest = (key: string, options: [string, string, unknown][]) => {
    const now = (p as Record<string, unknown>)[key]
    if (typeof now !== 'number') return String(now)
    return options.reduce((best, o) => (Math.abs(Number(o[0]) - now) < Math.abs(Number(best[0]) - now) ? o : best))[0]
  }
</script>

<section aria-label="Plate" class="border-b border-line pb-3">
  <div class="flex flex-wrap items-center gap-2 pt-2">
    <label class="btn btn-sm btn-primary">Open a plate<input type="file" class="sr-only" accept={STILLS} onchange={open} /></label>
    <button type="button" class="btn btn-sm" class:btn-active={!p.known} aria-pressed={!p.known} onclick={() => change({ known: !p.known })}
      >Not known yet</button
    >
    {#if before}<button type="button" class="btn btn-sm" onclick={back}>The picture before</button>{/if}
  </div>
  {#if error}<p role="alert" class="mt-1 text-primary">{error}</p>{/if}
  {#if p.known}
    <div class="mt-2 grid grid-cols-2 gap-x-6 gap-y-1 max-sm:grid-cols-1">
      {#each words as [label, key, options] (key)}
        <Choice
          {label}
          value={nearest(key, options)}
          options={options.map(([v, w]) => [v, w])}
          onchange={(v) => change(options.find((o) => o[0] === v)![2])}
        />
      {/each}
      {#if plan.subject}<Switch
          label="Feet and floor are seen"
          value={plan.subject.feet_seen}
          onchange={(v) => session.change([{ path: 'subject.feet_seen', value: v }])}
        />{/if}
    </div>
  {/if}
  {#if reading && url}
    <div class="mt-2">
      <PlatePicture
        {url}
        ratio={reading.width / reading.height}
        {points}
        horizon={result?.camera.horizon_v ?? null}
        change={(id, u, v) => (points = points.map((q) => (q.id === id ? { ...q, u, v } : q)))}
        settle={() => void solve()}
      />
    </div>
    <p class="label-text mt-1 flex justify-between gap-3">
      <span>Kept with the set-up on this machine; the test key lays the figure over it.</span><button
        type="button"
        class="cursor-pointer hover:text-ink"
        onclick={drop}>Remove the picture</button
      >
    </p>
    <div class="mt-1 flex items-start justify-between gap-3">
      <p>
        Mean {reading.mean_level.toFixed(0)} %, from {reading.black_level.toFixed(0)} to {reading.white_level.toFixed(0)} %, {reading.contrast_stops.toFixed(
          1,
        )} stops of contrast: {reading.brightness}. Light about {(Math.round(reading.cct / 50) * 50).toFixed(0)} K, if it averages grey. The picture
        is {reading.sharpness}.
      </p>
      <button type="button" class="btn btn-sm shrink-0" onclick={takeReading}>Take level and colour</button>
    </div>
    <div class="mt-2 flex flex-wrap gap-1.5" role="group" aria-label="Marks">
      {#each GROUPS as group (group.id)}
        {@const on = points.some((q) => q.group === group.id)}
        <button type="button" class="btn btn-sm" class:btn-active={on} aria-pressed={on} title={group.help} onclick={() => toggle(group.id)}
          >{group.word}</button
        >
      {/each}
    </div>
    {#each GROUPS.filter((g) => points.some((q) => q.group === g.id)) as group (group.id)}<p class="label-text">{group.help}</p>{/each}
    {#if markError}<p role="alert" class="mt-1 text-primary">{markError}</p>{/if}
    {#if result}
      <div class="mt-1 flex items-start justify-between gap-3" role="status">
        <p>
          Tilt {result.camera.tilt.toFixed(1)}°, roll {result.camera.roll.toFixed(1)}°,
          {result.camera.measured_view
            ? `angle of view ${result.camera.view_deg.toFixed(0)}° (${result.camera.focal_mm_ff.toFixed(0)} mm full frame)`
            : `for a lens of ${p.focal_mm_ff.toFixed(0)} mm full frame, which the marks do not tell`}.
          {#if result.light}Light from {Math.abs(result.light.azimuth).toFixed(0)}° {result.light.azimuth < 0 ? 'left' : 'right'}, {result.light.elevation.toFixed(
              0,
            )}° up.{/if}
          {#if result.light_problem}<span class="text-primary">{result.light_problem}</span>{/if}
        </p>
        <button type="button" class="btn btn-sm shrink-0" onclick={takeMarks}>Take camera and light</button>
      </div>
    {/if}
  {/if}
  <Sun
    take={(light) =>
      change({ known: true, key_azimuth: round(light.azimuth, 0), key_elevation: round(light.elevation, 0), softness: 'hard' })}
  />
  <Brief {plan} />
</section>
