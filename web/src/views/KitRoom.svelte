<script lang="ts">
  /** What somebody owns. Saved as it is typed; CSV and JSON in and out. */
  import NumberField from '../parts/NumberField.svelte'
  import Preferences from '../parts/Preferences.svelte'
  import TextField from '../parts/TextField.svelte'
  import Choice from '../parts/Choice.svelte'
  import * as api from '../lib/kitApi'
  import { listen } from '../lib/events'
  import { applyChanges } from '../lib/changes'
  import { inWords, type Kind } from '../lib/kitWords'
  import { prefs } from '../lib/prefs.svelte'
  import type { Kit } from '../lib/types'

  let kit = $state.raw<Kit | null>(null)
  let revision = $state(0)
  let error = $state('')
  let status = $state('')

  let ways = $state.raw({ can_undo: false, can_redo: false })
  const take = (stored: api.StoredKit) => ((kit = stored.kit), (revision = stored.revision), (ways = stored), (error = ''))
  /** One after another, so that quick hands never meet their own revision: an undo waits for what it takes back. */
  let queue = Promise.resolve()
  const run = (work: () => Promise<api.StoredKit>, done = 'Saved') => (queue = queue.then(() => ran(work, done)))
  async function ran(work: () => Promise<api.StoredKit>, done: string) {
    try {
      take(await work())
      status = done
    } catch (err) {
      error = (err as Error).message
      status = ''
    }
  }
  void run(api.getKit, '')

  function change(path: string, value: unknown) {
    if (!kit) return
    kit = applyChanges(kit as never, [{ path, value }]) as never as Kit
    const now = kit
    void run(() => api.saveKit(revision, now))
  }
  /** Another device's kit is taken over once what was typed here is saved. */
  async function heard() {
    const stored = await api.getKit().catch(() => null)
    if (stored && stored.revision !== revision) take(stored)
  }
  $effect(() => listen((changed) => changed.what === 'kit' && void (queue = queue.then(heard))))
  const HUES: [string, string][] = [
    ['green', 'green'],
    ['blue', 'blue'],
    ['other', 'other'],
  ]
  const CHROMAS: [string, string][] = ['4:2:0', '4:2:2', '4:4:4', 'raw'].map((c) => [c, c])
  const CLOTH: Record<string, number[]> = { green: [0.06, 0.34, 0.1], blue: [0.05, 0.1, 0.4] }
  const FACE = { shape: 'rect', width: 0.6, height: 0.6 }
  const SENSOR = { width_mm: 23.5, height_mm: 13.2, px_w: 3840, px_h: 2160, base_iso: 400 }
  const NEW = {
    cameras: { name: 'camera', count: 1, sensor: SENSOR, recording: { codec: 'long-gop', chroma: '4:2:0', bits: 8, mbit_s: 50 } },
    screens: {
      name: 'screen',
      count: 1,
      hue: 'green',
      reflectance: CLOTH.green,
      material: 'muslin',
      width: 3,
      height: 2.6,
      floor_run: 0,
      gloss: 0.02,
      transmittance: 0.05,
      wrinkle_slope: 0.03,
    },
    lenses: { name: '35 mm', count: 1, focal_mm: 35, f_number: 2.8 },
    lamps: {
      name: 'panel',
      count: 1,
      fixture: { emitter: FACE, flux_lm: 6000, beam: { kind: 'lambert' }, cct: 5600, duv: 0, cri: 95, watts: 60 },
    },
    stands: { name: 'stand', count: 1, height: 2.6, load_kg: 5 },
  }
  const KINDS: [Kind, string][] = [
    ['screens', 'Screens'],
    ['lenses', 'Lenses'],
    ['cameras', 'Cameras'],
    ['lamps', 'Lamps'],
    ['stands', 'Stands'],
  ]
  /** The row whose fields are open. */
  let opened = $state('')
  function toggled(event: Event, kind: Kind, i: number) {
    const open = (event.currentTarget as HTMLDetailsElement).open
    if (open) opened = `${kind} ${i}`
    else if (opened === `${kind} ${i}`) opened = ''
  }
  function add(kind: Kind) {
    opened = `${kind} ${kit![kind].length}`
    change(kind, [...kit![kind], NEW[kind]])
  }
  let uses = $state.raw<Record<string, string[]>>({})
  void api
    .kitUses()
    .then((found) => (uses = Object.fromEntries(found.uses.map((one) => [`${one.kind} ${one.name}`, one.titles]))))
    .catch(() => null)
  function inUse(kind: Kind, i: number) {
    const titles = uses[`${kind} ${kit![kind][i].name}`] ?? []
    return titles.length === 0 ? '' : ` · in ${titles[0]}${titles.length > 1 ? ` and ${titles.length - 1} more` : ''}`
  }
  const remove = (kind: Kind, index: number) =>
    change(
      kind,
      (kit![kind] as unknown[]).filter((_, i) => i !== index),
    )

  async function open(event: Event) {
    const input = event.currentTarget as HTMLInputElement
    const file = input.files?.[0]
    if (!file) return
    const text = await file.text()
    await run(async () => {
      if (!file.name.toLowerCase().endsWith('.json')) return api.saveKitCsv(revision, text)
      let data: Kit
      try {
        data = JSON.parse(text)
      } catch {
        throw new Error(`${file.name} is not JSON.`)
      }
      return api.saveKit(revision, data)
    }, `${file.name} taken over`)
    input.value = ''
  }
  const json = $derived(`data:application/json;charset=utf-8,${encodeURIComponent(JSON.stringify(kit ?? {}, null, 1))}`)
</script>

<svelte:head><title>Kit room · Ausblick</title></svelte:head>
<header class="flex h-11 items-center gap-3 border-b border-line px-4">
  <a href="#/" class="font-semibold hover:text-primary">Ausblick</a>
  <span class="text-quiet" aria-hidden="true">/</span>
  <h1 class="flex-1 font-semibold">Kit room</h1>
  <span class="label-text" role="status">{status}</span>
  <span class="max-sm:hidden"><Preferences /></span>
</header>
<main class="mx-auto max-w-6xl px-4 py-6">
  {#if error}<p role="alert" class="mb-4 border border-primary p-2 text-primary">{error}</p>{/if}
  {#if kit}
    <div class="mb-4 flex flex-wrap items-center gap-3">
      <p class="flex-1 text-quiet">
        What you own. From it come the table of what a room can shoot, proposals, and findings when a set-up needs more.
      </p>
      <button type="button" class="btn btn-sm" disabled={!ways.can_undo} onclick={() => run(api.undoKit, 'Undone')}>Undo</button>
      <button type="button" class="btn btn-sm" disabled={!ways.can_redo} onclick={() => run(api.redoKit, 'Done again')}>Redo</button>
      <button
        type="button"
        class="btn btn-sm"
        onclick={() => run(async () => api.addToKit(revision, (await api.getCatalogue()).kit), 'Generic kit added')}
        >Add a generic kit</button
      >
      <label class="btn btn-sm">Open CSV or JSON<input type="file" class="sr-only" accept=".csv,.json" onchange={open} /></label>
      <a class="btn btn-sm" href="/api/kit.csv" download="kit.csv">CSV</a>
      <a class="btn btn-sm" href={json} download="kit.json">JSON</a>
    </div>
    {#each KINDS as [kind, word] (kind)}
      <section aria-label={word} class="mb-6">
        <div class="flex items-center justify-between border-b border-line pb-1">
          <h2 class="text-reading">{word}</h2>
          <button type="button" class="btn btn-sm" aria-label="Add to {word}" onclick={() => add(kind)}>Add</button>
        </div>
        {#each kit[kind] as item, i (i)}
          <details class="border-b border-line" open={opened === `${kind} ${i}`} ontoggle={(event) => toggled(event, kind, i)}>
            <summary class="flex cursor-pointer items-baseline gap-3 py-1.5 hover:text-primary">
              <span class="w-8 text-right tabular-nums">{item.count} ×</span>
              <span class="min-w-0 flex-1">{item.name}</span>
              <span class="label-text text-right">{inWords(kind, item as never, prefs.length)}{inUse(kind, i)}</span>
            </summary>
            <div class="flex flex-wrap items-center gap-x-4 gap-y-1 pb-2 pl-11 [&_input.w-20]:w-14 [&_select]:w-20">
              <TextField label="Name" wide value={item.name} onchange={(v) => change(`${kind}[${i}].name`, v)} />
              <NumberField
                label="Count"
                digits={0}
                step={1}
                min={0}
                max={1000}
                value={item.count}
                onchange={(v) => change(`${kind}[${i}].count`, Math.round(v))}
              />
              {#if kind === 'screens'}
                {@const s = kit.screens[i]}
                <Choice
                  label="Colour"
                  value={s.hue}
                  options={HUES}
                  onchange={(v) => (change(`screens[${i}].hue`, v), CLOTH[v] && change(`screens[${i}].reflectance`, CLOTH[v]))}
                />
                <NumberField
                  label="Width"
                  unit="m"
                  field="kit.screens[].width"
                  value={s.width}
                  onchange={(v) => change(`screens[${i}].width`, v)}
                />
                <NumberField
                  label="Height"
                  unit="m"
                  field="kit.screens[].height"
                  value={s.height}
                  onchange={(v) => change(`screens[${i}].height`, v)}
                />
                <NumberField
                  label="Floor piece"
                  unit="m"
                  field="kit.screens[].floor_run"
                  value={s.floor_run}
                  onchange={(v) => change(`screens[${i}].floor_run`, v)}
                />
              {:else if kind === 'lenses'}
                {@const l = kit.lenses[i]}
                <NumberField
                  label="Focal length"
                  unit="mm"
                  digits={1}
                  step={1}
                  field="kit.lenses[].focal_mm"
                  value={l.focal_mm}
                  onchange={(v) => change(`lenses[${i}].focal_mm`, v)}
                />
                <NumberField
                  label="Widest f/"
                  digits={1}
                  step={0.1}
                  field="kit.lenses[].f_number"
                  value={l.f_number}
                  onchange={(v) => change(`lenses[${i}].f_number`, v)}
                />
              {:else if kind === 'cameras'}
                {@const { sensor, recording } = kit.cameras[i]}
                <NumberField
                  label="Sensor"
                  unit="mm"
                  digits={1}
                  step={0.1}
                  field="kit.cameras[].sensor.width_mm"
                  value={sensor.width_mm}
                  onchange={(v) => change(`cameras[${i}].sensor.width_mm`, v)}
                />
                <NumberField
                  label="by"
                  unit="mm"
                  digits={1}
                  step={0.1}
                  field="kit.cameras[].sensor.height_mm"
                  value={sensor.height_mm}
                  onchange={(v) => change(`cameras[${i}].sensor.height_mm`, v)}
                />
                <NumberField
                  label="Pixels"
                  digits={0}
                  step={16}
                  field="kit.cameras[].sensor.px_w"
                  value={sensor.px_w}
                  onchange={(v) => change(`cameras[${i}].sensor.px_w`, Math.round(v))}
                />
                <NumberField
                  label="Base ISO"
                  digits={0}
                  step={100}
                  field="kit.cameras[].sensor.base_iso"
                  value={sensor.base_iso}
                  onchange={(v) => change(`cameras[${i}].sensor.base_iso`, v)}
                />
                <Choice
                  label="Chroma"
                  value={recording.chroma}
                  options={CHROMAS}
                  onchange={(v) => change(`cameras[${i}].recording.chroma`, v)}
                />
              {:else if kind === 'lamps'}
                {@const { fixture } = kit.lamps[i]}
                {#if fixture.flux_lm !== null}<NumberField
                    label="Flux"
                    unit="lm"
                    digits={0}
                    step={500}
                    field="kit.lamps[].fixture.flux_lm"
                    value={fixture.flux_lm}
                    onchange={(v) => change(`lamps[${i}].fixture.flux_lm`, v)}
                  />{/if}
                {#if fixture.emitter.shape === 'rect'}
                  <NumberField
                    label="Face width"
                    unit="m"
                    field="kit.lamps[].fixture.emitter.width"
                    value={fixture.emitter.width}
                    onchange={(v) => change(`lamps[${i}].fixture.emitter.width`, v)}
                  />
                  <NumberField
                    label="Face height"
                    unit="m"
                    field="kit.lamps[].fixture.emitter.height"
                    value={fixture.emitter.height}
                    onchange={(v) => change(`lamps[${i}].fixture.emitter.height`, v)}
                  />
                {/if}
                <NumberField
                  label="Power"
                  unit="W"
                  digits={0}
                  step={10}
                  field="kit.lamps[].fixture.watts"
                  value={fixture.watts}
                  onchange={(v) => change(`lamps[${i}].fixture.watts`, v)}
                />
              {:else}
                {@const t = kit.stands[i]}
                <NumberField
                  label="Height"
                  unit="m"
                  field="kit.stands[].height"
                  value={t.height}
                  onchange={(v) => change(`stands[${i}].height`, v)}
                />
                <NumberField
                  label="Rated load"
                  unit="kg"
                  digits={1}
                  step={0.5}
                  field="kit.stands[].load_kg"
                  value={t.load_kg}
                  onchange={(v) => change(`stands[${i}].load_kg`, v)}
                />
              {/if}
              <button type="button" class="btn btn-sm ml-auto" aria-label="Remove {item.name}" onclick={() => remove(kind, i)}
                >Remove</button
              >
            </div>
          </details>
        {:else}
          <p class="py-2 text-quiet">None yet.</p>
        {/each}
      </section>
    {/each}
    <section aria-label="Weights" class="flex flex-wrap gap-6">
      <NumberField
        label="Sandbags"
        digits={0}
        step={1}
        field="kit.sandbags"
        value={kit.sandbags}
        onchange={(v) => change('sandbags', Math.round(v))}
      />
      <NumberField
        label="each"
        unit="kg"
        digits={1}
        step={0.5}
        field="kit.sandbag_kg"
        value={kit.sandbag_kg}
        onchange={(v) => change('sandbag_kg', v)}
      />
      <NumberField
        label="Clamps"
        digits={0}
        step={1}
        field="kit.clamps"
        value={kit.clamps}
        onchange={(v) => change('clamps', Math.round(v))}
      />
    </section>
  {/if}
</main>
