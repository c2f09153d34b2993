<script lang="ts">
  /** Camera: the ledger of stops with its locks, ways to the wanted levels, safe shutters, what is recorded. */
  import { SHUTTER_SCHOOLS } from '../../lib/schools'
  import Recorders from './Recorders.svelte'
  import Smear from './Smear.svelte'
  import Switch from '../../parts/Switch.svelte'
  import Choice from '../../parts/Choice.svelte'
  import NumberField from '../../parts/NumberField.svelte'
  import { ledger } from '../../lib/lightApi'
  import { opened } from '../../lib/resource.svelte'
  import { prefs } from '../../lib/prefs.svelte'
  import { say } from '../../lib/say'
  import { session } from '../../lib/session.svelte'
  import type { Ledger, LedgerRow, Plan, Solution } from '../../lib/types'
  let { plan }: { plan: Plan } = $props()

  const asked = opened<Ledger>()
  const found = $derived(asked.value)
  const problem = $derived(asked.error)
  type Lockable = Exclude<LedgerRow, 'frame rate'>
  let locked = $state<Lockable[]>([])
  $effect(() => {
    const [now, rows] = [plan, [...locked]]
    void asked.ask(async (signal) => {
      await session.drawn()
      return ledger(now, rows, signal)
    }, 350)
  })

  const WORDS: Record<LedgerRow, string> = {
    'frame rate': 'Frame rate',
    shutter: 'Shutter',
    aperture: 'Aperture',
    iso: 'ISO',
    nd: 'ND',
    'screen lamps': 'Screen lamps',
    'subject lamps': 'Subject lamps',
  }
  const signed = (stops: number) => (Math.abs(stops) < 0.005 ? '0.0' : `${stops > 0 ? '+' : '−'}${Math.abs(stops).toFixed(1)}`)
  const toggle = (row: Lockable) => (locked = locked.includes(row) ? locked.filter((r) => r !== row) : [...locked, row])
  const attempt = (s: Solution) => void session.attempt({ text: s.name, changes: s.changes })
  const set = (path: string) => (value: unknown) => session.change([{ path, value }])
  const recording = $derived(plan.camera.recording)
  const CHROMA: [string, string][] = [
    ['4:2:0', '4:2:0'],
    ['4:2:2', '4:2:2'],
    ['4:4:4', '4:4:4'],
    ['raw', 'raw'],
  ]
  const CODECS: [string, string][] = [
    ['long-gop', 'long groups'],
    ['intra', 'every frame'],
    ['uncompressed', 'uncompressed'],
    ['raw', 'raw'],
  ]
  const CURVES: [string, string][] = [
    ['rec709', 'Rec.709'],
    ['hlg', 'HLG'],
    ['acescct', 'ACEScct'],
    ['linear', 'linear'],
  ]
  const curves = $derived(plan.camera.curve_table ? [...CURVES, ['cube', 'own table'] as [string, string]] : CURVES)
  async function table(event: Event) {
    const input = event.currentTarget as HTMLInputElement
    const file = input.files?.[0]
    input.value = ''
    if (file)
      session.change([
        { path: 'camera.curve_table', value: await file.text() },
        { path: 'camera.curve', value: 'cube' },
      ])
  }
  const SETTING = (s: Solution) =>
    s.entries
      .filter((e) => found?.entries.find((old) => old.row === e.row)?.setting !== e.setting)
      .map((e) => (e.row === 'iso' ? e.setting : `${WORDS[e.row]} ${e.setting}`))
      .join(', ')
  const data = $derived(session.evaluation?.numbers.find((n) => n.id === 'data'))
  const onCard = $derived(data?.inputs.find((i) => i.name === 'minutes on 256 GB')?.value)
</script>

<section aria-label="Camera" class="border-b border-line pb-3">
  {#if problem}<p role="alert" class="pt-2 text-primary">{problem}</p>{/if}
  {#if found}
    <h2 class="pt-2 font-semibold">Ledger of stops</h2>
    <table class="table table-xs mt-1">
      <thead
        ><tr class="label-text text-left"
          ><th class="font-normal">Row</th><th class="text-right font-normal">set to</th><th class="text-right font-normal"
            >wins or spends</th
          ><th class="w-16 text-right font-normal">locked</th></tr
        ></thead
      >
      <tbody>
        {#each found.entries as entry (entry.row)}
          <tr class="border-t border-line">
            <td class="py-0.5">{WORDS[entry.row]}</td>
            <td class="text-right">{entry.setting}</td>
            <td class="text-right" class:text-quiet={Math.abs(entry.stops) < 0.05}>{signed(entry.stops)}</td>
            <td class="text-right"
              >{#if entry.row !== 'frame rate'}<input
                  type="checkbox"
                  class="checkbox checkbox-xs checkbox-primary size-6 rounded-xs align-middle"
                  aria-label="Lock {WORDS[entry.row]}"
                  checked={locked.includes(entry.row as Lockable)}
                  onchange={() => toggle(entry.row as Lockable)}
                />{/if}</td
            >
          </tr>
        {/each}
        <tr class="border-t border-line font-semibold">
          <td class="py-1">Over what is wanted</td>
          <td class="text-right" colspan="3">
            screen {found.outcome.standing.screen === null ? 'dark' : `${signed(found.outcome.standing.screen)} stops`}, face {found.outcome
              .standing.face === null
              ? 'dark'
              : `${signed(found.outcome.standing.face)} stops`}
          </td>
        </tr>
      </tbody>
    </table>
    <p class="label-text">
      Against 180°, f/4, base ISO, no ND, lamps at full.
      {#if plan.lights.some((l) => l.on && l.fixture.flash_lms != null)}A flash's light does not go with the shutter.{/if}
    </p>
    {#if found.solutions.length}
      <h2 class="mt-3 font-semibold">Ways to the wanted levels</h2>
      <ul>
        {#each found.solutions as s (s.name)}
          <li class="flex items-start gap-3 border-t border-line py-1.5">
            <span class="flex-1">
              {s.name}: <span class="text-quiet">{SETTING(s) || 'nothing else'}</span>
              <span class="block {s.missing > 0 ? 'text-primary' : ''}">{say(s.says, prefs)}</span>
              <span class="label-text block">
                smear {s.outcome.smear_px?.toFixed(0) ?? '–'} px · noise {s.outcome.noise_percent?.toFixed(2) ?? '–'} % · sharp over {s.outcome.depth_m?.toFixed(
                  2,
                ) ?? '∞'} m · {s.outcome.cut_flashes < 0.02 ? 'no flash cut' : 'cuts flashes'} · {s.outcome.watts.toFixed(0)} W · edge {s.outcome.edge_percent?.toFixed(
                  1,
                ) ?? '–'} %
              </span>
            </span>
            <button type="button" class="btn btn-sm shrink-0" aria-label="Try: {s.name}" onclick={() => attempt(s)}>Try</button>
          </li>
        {/each}
      </ul>
    {:else}
      <p class="mt-2 text-quiet">Nothing to change: both are at their levels, or every row is locked.</p>
    {/if}
    <h2 class="mt-3 font-semibold">Shutter</h2>
    <div class="mt-1 grid grid-cols-2 gap-x-6 gap-y-1.5 max-sm:grid-cols-1">
      <Choice label="School" value={plan.targets.shutter_school} options={SHUTTER_SCHOOLS} onchange={set('targets.shutter_school')} />
      <p class="flex flex-wrap items-center justify-end gap-1.5">
        <span class="label-text">Whole flashes at {plan.room.mains.hz} Hz</span>
        {#each found.safe_shutters.slice(0, 4) as s (s)}
          <button
            type="button"
            class="btn btn-sm !px-1.5"
            class:btn-active={Math.abs(s - plan.camera.shutter_s) < 1e-5}
            onclick={() => session.change([{ path: 'camera.shutter_s', value: s }])}>1/{(1 / s).toFixed(0)}</button
          >
        {/each}
      </p>
    </div>
    <div class="mt-1 grid grid-cols-2 gap-x-6 gap-y-1.5 max-sm:grid-cols-1">
      {#if plan.medium === 'stills'}
        <NumberField
          label="Sync time 1 /"
          unit="s"
          digits={0}
          step={10}
          min={1}
          max={10000}
          value={1 / (plan.camera.sync_s ?? 0.004)}
          onchange={(n) => set('camera.sync_s')(Number((1 / n).toPrecision(8)))}
        />
      {:else}
        <NumberField
          label="Frames per second"
          digits={2}
          step={1}
          field="camera.fps"
          value={plan.camera.fps}
          onchange={set('camera.fps')}
        />
        <NumberField
          label="Shown at (0: the same)"
          unit="fps"
          digits={2}
          step={1}
          field="camera.playback_fps"
          value={plan.camera.playback_fps ?? 0}
          onchange={set('camera.playback_fps')}
        />
      {/if}
    </div>
    <Smear px={session.evaluation?.check.blur.motion_px ?? null} />
    <p class="label-text">Dimmed LED lamps flash at their own, higher rate: look at a test clip. A shutter below 90° looks choppy.</p>
  {/if}
  <h2 class="mt-3 font-semibold">Recording</h2>
  <div class="mt-1 grid grid-cols-2 gap-x-6 gap-y-1.5 max-sm:grid-cols-1">
    <Choice label="Chroma" value={recording.chroma} options={CHROMA} onchange={set('camera.recording.chroma')} />
    <Choice
      label="Codec"
      value={recording.codec}
      options={CODECS.some(([k]) => k === recording.codec) ? CODECS : [[recording.codec, recording.codec], ...CODECS]}
      onchange={set('camera.recording.codec')}
    />
    <NumberField
      label="Bits"
      digits={0}
      step={2}
      field="camera.recording.bits"
      value={recording.bits}
      onchange={(v) => set('camera.recording.bits')(Math.round(v))}
    />
    <NumberField
      label="Bit rate"
      unit="Mb/s"
      digits={0}
      step={10}
      field="camera.recording.mbit_s"
      value={recording.mbit_s}
      onchange={set('camera.recording.mbit_s')}
    />
    <Choice label="Curve" value={plan.camera.curve} options={curves} onchange={set('camera.curve')} />
    <p class="flex items-center justify-between">
      <span class="label-text">A minute, a 256 GB card</span><span
        >{data?.value?.toFixed(2) ?? '–'} GB, {onCard?.toFixed(0) ?? '–'} min</span
      >
    </p>
  </div>
  <div class="mt-1.5 grid grid-cols-2 gap-x-6 gap-y-1.5 max-sm:grid-cols-1">
    <Switch label="Sharpening" value={plan.camera.sharpening} onchange={set('camera.sharpening')} />
    <Switch label="Noise reduction" value={plan.camera.noise_reduction ?? false} onchange={set('camera.noise_reduction')} />
    <label class="btn btn-sm w-fit">Own curve from a .cube file<input type="file" class="sr-only" accept=".cube" onchange={table} /></label>
    {#if plan.camera.noise}<p class="flex items-center justify-between">
        <span class="label-text"
          >Noise of a measured frame, {plan.camera.noise.percent.toFixed(2)} % at {plan.camera.noise.level.toFixed(0)} %</span
        ><button type="button" class="label-text cursor-pointer hover:text-ink" onclick={() => set('camera.noise')(null)}>model</button>
      </p>{/if}
  </div>
  <Recorders {plan} />
</section>
