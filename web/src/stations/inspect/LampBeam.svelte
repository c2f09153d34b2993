<script lang="ts">
  /** Shape of the emitter, its beam or photometry file with the polar curve, and what is put before it. */
  import { lineRadial } from 'd3-shape'
  import Choice from '../../parts/Choice.svelte'
  import NumberField from '../../parts/NumberField.svelte'
  import { readPhotometry } from '../../lib/lightApi'
  import { session } from '../../lib/session.svelte'
  import { isDaylight, type Photometry, type Plan } from '../../lib/types'
  import LampModifiers from './LampModifiers.svelte'
  import { set } from './set'
  let { plan, index }: { plan: Plan; index: number } = $props()

  const lamp = $derived(plan.lights[index])
  const at = $derived(`lights[${index}]`)
  const daylight = $derived(isDaylight(lamp))
  const beam = $derived(lamp.fixture.beam)
  let curve = $state.raw<Photometry | null>(null)
  let problem = $state('')

  const BEAMS: [string, string][] = [
    ['lambert', 'soft, all over'],
    ['beam', 'beam angle'],
    ['cosine', 'cosine lobe'],
    ['ies', 'from a file'],
  ]
  const SHAPES: [string, string][] = [
    ['rect', 'panel'],
    ['disc', 'disc'],
    ['point', 'point'],
    ['sun', 'sun'],
    ['window', 'window'],
  ]

  $effect(() => {
    const text = beam.kind === 'ies' ? plan.photometry?.[beam.ref] : undefined
    curve = null
    if (text)
      readPhotometry(text).then(
        (found) => (curve = found),
        (error: Error) => (problem = error.message),
      )
  })
  function shape(kind: string) {
    const emitter = {
      rect: { shape: 'rect', width: 0.6, height: 0.6 },
      disc: { shape: 'disc', diameter: 0.4 },
      point: { shape: 'point' },
      sun: { shape: 'sun' },
      window: { shape: 'window', width: 1.2, height: 1.4 },
    }[kind]
    const none = { flux_lm: null, flash_lms: null, peak_cd: null, normal_lux: null, luminance: null }
    const sky = { sun: { normal_lux: 80000 }, window: { luminance: 3000 } }[kind]
    const power = sky ? { ...none, ...sky, beam: { kind: 'lambert' } } : daylight ? { ...none, flux_lm: 6000 } : {}
    session.change([{ path: `${at}.fixture`, value: { ...lamp.fixture, emitter, ...power } }])
  }
  function beamKind(kind: string) {
    if (kind === 'ies') return
    const next = kind === 'beam' ? { kind, deg: 60 } : kind === 'cosine' ? { kind, n: 2 } : { kind }
    const power =
      lamp.fixture.flux_lm == null && lamp.fixture.peak_cd == null && lamp.fixture.flash_lms == null
        ? { flux_lm: Math.round(curve?.flux_lm ?? 6000) }
        : {}
    session.change([{ path: `${at}.fixture`, value: { ...lamp.fixture, beam: next, ...power } }])
  }
  async function file(event: Event) {
    const input = event.currentTarget as HTMLInputElement
    const chosen = input.files?.[0]
    input.value = ''
    if (!chosen) return
    problem = ''
    try {
      const text = await chosen.text()
      const found = await readPhotometry(text)
      const ref = chosen.name.slice(0, 100)
      session.change([
        { path: 'photometry', value: { ...plan.photometry, [ref]: text } },
        {
          path: `${at}.fixture`,
          value: { ...lamp.fixture, beam: { kind: 'ies', ref }, flux_lm: null, peak_cd: null, watts: found.watts || lamp.fixture.watts },
        },
      ])
    } catch (error) {
      problem = (error as Error).message
    }
  }
  const R = 46
  /** Downward is along the lamp's axis: d3 counts angles from above and clockwise. */
  const polar = (which: 1 | 2) =>
    lineRadial<number[]>()
      .angle((p) => Math.PI - (p[0] * Math.PI) / 180)
      .radius((p) => (R * p[which]) / (curve?.peak_cd ?? 1))(curve?.curve ?? [])
</script>

<Choice label="Emitter" value={lamp.fixture.emitter.shape} options={SHAPES} onchange={shape} />
{#if !daylight}
  <Choice label="Beam" value={beam.kind} options={beam.kind === 'ies' ? BEAMS : BEAMS.slice(0, 3)} onchange={beamKind} />
  {#if beam.kind === 'beam'}<NumberField
      label="Half-peak angle"
      unit="°"
      digits={0}
      step={5}
      field="lights[].fixture.beam.deg"
      value={beam.deg}
      onchange={set(`${at}.fixture.beam.deg`)}
    />{/if}
  {#if beam.kind === 'cosine'}<NumberField
      label="Exponent"
      digits={1}
      step={1}
      field="lights[].fixture.beam.n"
      value={beam.n}
      onchange={set(`${at}.fixture.beam.n`)}
    />{/if}
  <label class="btn btn-sm self-start"
    >Photometry file<input type="file" class="sr-only" accept=".ies,.IES,text/plain" onchange={file} /></label
  >
  {#if problem}<p role="alert" class="label-text !text-primary">{problem}</p>{/if}
  {#if curve && beam.kind === 'ies'}
    <figure class="flex items-start gap-2">
      <svg
        width="120"
        height="62"
        role="img"
        aria-label="Polar curve of {beam.ref}: {curve.peak_cd.toFixed(0)} cd at its peak, half of it {(curve.half_peak_deg / 2).toFixed(
          0,
        )}° from the axis"
      >
        {#each [0.5, 1] as ring (ring)}<path
            d="M{60 - R * ring} 8A{R * ring} {R * ring} 0 0 0 {60 + R * ring} 8"
            fill="none"
            stroke="var(--line)"
            stroke-width="0.6"
          />{/each}
        <path d="M60 8V60M10 8H110" stroke="var(--line)" stroke-width="0.6" />
        <path transform="translate(60 8)" d={polar(1)} fill="none" stroke="var(--color-base-content)" stroke-width="1.3" />
        <path
          transform="translate(60 8)"
          d={polar(2)}
          fill="none"
          stroke="var(--color-base-content)"
          stroke-width="1"
          stroke-dasharray="3 2"
        />
      </svg>
      <figcaption class="label-text">
        {curve.peak_cd.toFixed(0)} cd, {curve.flux_lm.toFixed(0)} lm, {curve.half_peak_deg.toFixed(0)}° to half peak. Line: along the
        height; dashed: across.
      </figcaption>
    </figure>
  {/if}
  <LampModifiers {lamp} {at} />
{/if}
