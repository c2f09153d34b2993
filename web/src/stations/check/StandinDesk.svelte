<script lang="ts">
  /** The stand-in camera: the set as somebody built it, live, with the camera's and the lamps' controls and a meter. */
  import Histogram from './Histogram.svelte'
  import Vectorscope from './Vectorscope.svelte'
  import Waveform from './Waveform.svelte'
  import Choice from '../../parts/Choice.svelte'
  import NumberField from '../../parts/NumberField.svelte'
  import { buildStandin, getStandin, lookThrough, meter, record, touchStandin } from '../../lib/checkApi'
  import { upOf } from '../../lib/body'
  import { EYE_HEIGHT } from '../../lib/facts.generated'
  import { session } from '../../lib/session.svelte'
  import type { Change, Light, Look, Meter, Plan, Standin } from '../../lib/types'
  import { signed } from '../../lib/units'
  let { recorded }: { recorded: (frame: number) => void } = $props()

  let standin = $state.raw<Standin | null>(null)
  /** At least so many ms between two pictures, and as long as one took: the machine has other things to do. */
  const REST = 60
  let look = $state.raw<Look | null>(null)
  let error = $state('')
  let busy = $state('')
  let metered = $state.raw<Meter | null>(null)
  let told = $state.raw<string[]>([])
  const built = $derived(standin?.plan as Plan | undefined)
  const lamps = $derived((built?.lights ?? []) as Light[])

  /** One after the other: a still that is shot right after a lamp was turned shows it turned. */
  let done: Promise<void> = Promise.resolve()
  function guard(work: () => Promise<unknown>) {
    const one = async () => {
      try {
        await work()
        error = ''
      } catch (err) {
        error = (err as Error).message
      }
    }
    done = done.then(one)
    return done
  }
  $effect(() => {
    const id = session.id
    let open = true
    void guard(async () => (standin = await getStandin(id)))
    const live = async () => {
      while (open) {
        const asked = performance.now()
        const found = await lookThrough(id).catch((err: Error) => void (error = err.message))
        if (found && open) look = found
        await new Promise((done) => setTimeout(done, document.hidden || !found ? 1500 : Math.max(REST, performance.now() - asked)))
      }
    }
    void live()
    return () => void (open = false)
  })
  const touch = (path: string) => (value: unknown) =>
    guard(async () => (standin = await touchStandin(session.id, [{ path, value } as Change])))
  const build = (seed: number, faults: boolean) =>
    guard(async () => ((told = []), (standin = await buildStandin(session.id, seed, faults))))
  const shoot = (what: 'still' | 'clip') =>
    guard(async () => {
      busy = what === 'clip' ? 'Recording and measuring a clip' : 'Measuring a still'
      const frame = await record(session.id, what).finally(() => (busy = ''))
      recorded(frame.id)
    })
  async function spot(event: MouseEvent) {
    const box = (event.currentTarget as Element).querySelector('img')!.getBoundingClientRect()
    await guard(
      async () =>
        (metered = await meter(session.id, 'spot', [(event.clientX - box.left) / box.width, (event.clientY - box.top) / box.height])),
    )
  }
  const face = () =>
    guard(async () => {
      const s = session.plan?.subject
      metered = await meter(session.id, 'incident', s ? [s.x, upOf(s, EYE_HEIGHT), s.z] : [0, 1.3, 0.05])
    })
</script>

<div class="grid h-full min-h-0 grid-cols-1 lg:grid-cols-[minmax(0,1fr)_30rem]">
  <section aria-label="Live picture" class="flex min-h-0 flex-col border-line p-3 lg:border-r">
    <p class="flex flex-wrap items-center gap-2 pb-2">
      <button type="button" class="btn btn-sm btn-primary" onclick={() => shoot('still')}>Shoot a still</button>
      <button type="button" class="btn btn-sm" onclick={() => shoot('clip')}>Record a clip</button>
      <button type="button" class="btn btn-sm" onclick={() => build((standin?.seed ?? 3) + 1, true)}>Another set</button>
      <button type="button" class="btn btn-sm" onclick={() => build(standin?.seed ?? 4, false)}>Exactly as planned</button>
      <span class="label-text" role="status">{busy}</span>
    </p>
    {#if error}<p role="alert" class="mb-2 text-primary">{error}</p>{/if}
    <div class="flex min-h-56 flex-1 items-center justify-center bg-base-300">
      {#if look}
        <button type="button" class="h-full w-full cursor-crosshair" aria-label="Spot meter: click a place" onclick={spot}
          ><img
            src="data:image/jpeg;base64,{look.picture}"
            alt="Live picture of the set as built: {look.reading.hue ?? 'no'} screen at {look.reading.level_luma?.mean.toFixed(0) ??
              '–'} % luma"
            class="mx-auto max-h-full w-full object-contain"
          /></button
        >
      {:else}<p class="text-quiet">Somebody is building the set</p>{/if}
    </div>
    <p class="mt-2 flex flex-wrap items-center gap-x-4 gap-y-1">
      <button type="button" class="btn btn-sm" onclick={face}>Incident meter at the face</button>
      {#if metered}<span
          >{metered.kind === 'spot' ? 'Spot' : 'Incident'}:
          <span class="font-semibold"
            >{metered.lux !== null ? `${metered.lux.toFixed(0)} lx` : `${metered.candela_m2?.toFixed(1)} cd/m²`}</span
          >{metered.stops === null ? '' : `, ${signed(metered.stops, 1)} stops from grey`}</span
        >{:else}<span class="label-text">Click into the picture for a spot meter.</span>{/if}
      <button
        type="button"
        class="label-text ml-auto cursor-pointer underline hover:text-ink"
        onclick={() => guard(async () => (told = (await getStandin(session.id, true)).truth))}>What was built wrong?</button
      >
    </p>
    {#if told.length}<p class="mt-1 text-quiet">Built: {told.join('; ')}.</p>{/if}
    <p class="label-text mt-1">
      A simulation: the plan with hidden deviations, drawn like the test key, with noise but no codec until you shoot.
    </p>
  </section>
  <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
  <section aria-label="Instruments and controls" tabindex="0" class="relative min-h-0 overflow-y-auto p-3">
    {#if look}
      <p class="pb-2 text-reading" role="status">
        Screen {look.reading.level_luma?.mean.toFixed(0) ?? '–'} % luma, planned {look.planned_luma?.toFixed(0) ?? '–'} %; uneven by {look.reading.even_percent?.toFixed(
          1,
        ) ?? '–'} points, planned {look.planned_even?.toFixed(1) ?? '–'}
      </p>
      <div class="grid grid-cols-[1fr_9.5rem] gap-3"><Waveform frame={look} compared={null} /><Vectorscope frame={look} /></div>
      <Histogram frame={look} />
    {/if}
    {#if built}
      <h2 class="mt-4 font-semibold">Lamps on the set</h2>
      {#each lamps as lamp, i (lamp.id)}
        <div class="border-t border-line py-1.5">
          <label class="flex items-center gap-3"
            ><span class="w-32 truncate">{lamp.name}</span>
            <input
              type="range"
              class="range range-xs range-primary flex-1"
              min="0"
              max="1"
              step="0.01"
              value={lamp.dimmer}
              aria-label="Dimmer of {lamp.name}"
              onchange={(event) => touch(`lights[${i}].dimmer`)(Number(event.currentTarget.value))}
            /></label
          >
          {#if lamp.role === 'screen'}
            <div class="mt-1 grid grid-cols-2 gap-x-6">
              <NumberField
                label="Stand moved by"
                unit="m"
                step={0.1}
                min={-5}
                max={5}
                value={0}
                onchange={(by) =>
                  touch(`lights[${i}].position`)([lamp.position[0], lamp.position[1], Math.max(0.2, lamp.position[2] + by)])}
              />
              <NumberField
                label="Turned to"
                unit="K"
                digits={0}
                step={100}
                min={1000}
                max={25000}
                value={lamp.fixture.cct}
                onchange={touch(`lights[${i}].fixture.cct`)}
              />
            </div>
          {/if}
        </div>
      {/each}
      <h2 class="mt-3 font-semibold">Camera</h2>
      <div class="mt-1 grid grid-cols-2 gap-x-6 gap-y-1">
        <NumberField
          label="f-number"
          digits={1}
          step={0.1}
          min={0.5}
          max={128}
          value={built.camera.f_number}
          onchange={touch('camera.f_number')}
        />
        <NumberField label="ISO" digits={0} step={100} min={1} max={1e7} value={built.camera.iso} onchange={touch('camera.iso')} />
        <NumberField
          label="Shutter 1 /"
          unit="s"
          digits={0}
          step={5}
          min={1}
          max={100000}
          value={1 / built.camera.shutter_s}
          onchange={(n) => touch('camera.shutter_s')(Number((1 / n).toPrecision(8)))}
        />
        <NumberField
          label="White balance"
          unit="K"
          digits={0}
          step={100}
          min={1000}
          max={25000}
          value={built.camera.white_balance_k}
          onchange={touch('camera.white_balance_k')}
        />
        <Choice
          label="Curve"
          value={built.camera.curve}
          options={[
            ['rec709', 'Rec.709'],
            ['hlg', 'HLG'],
            ['acescct', 'ACEScct'],
            ['linear', 'linear'],
            ...(built.camera.curve_table ? [['cube', 'own table'] as [string, string]] : []),
          ]}
          onchange={touch('camera.curve')}
        />
      </div>
    {/if}
  </section>
</div>
