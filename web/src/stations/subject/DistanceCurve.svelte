<script lang="ts">
  /** Shadow and spill against the distance of the mark, the mark on it; drag it, or choose a school. */
  import { scaleLinear } from 'd3-scale'
  import { line } from 'd3-shape'
  import { distances } from '../../lib/lightApi'
  import { prefs } from '../../lib/prefs.svelte'
  import { opened } from '../../lib/resource.svelte'
  import { session } from '../../lib/session.svelte'
  import type { AtDistance, Distances, Plan } from '../../lib/types'
  import { showLength } from '../../lib/units'
  let { plan }: { plan: Plan } = $props()

  const asked = opened<Distances>()
  const found = $derived(asked.value)
  let of = $state.raw<Plan | null>(null)
  let width = $state(480)
  const HEIGHT = 130
  const LEFT = 34
  const BOTTOM = 18
  const SCHOOLS: Record<string, string> = {
    '1m': '1 m, one soft light',
    '1.2-2m': '1.2 to 2 m',
    '2m-plus': '2 m and more',
    '3m': '3 m',
    'shadow-gone': 'as soon as the shadow is gone',
  }

  async function compute() {
    const now = plan
    if (await asked.ask((signal) => distances(now, signal))) of = now
  }
  const curve = $derived(found?.curve ?? [])
  const far = $derived(Math.max(3, ...curve.map((p) => p.z)))
  const top = $derived(Math.max(10, ...curve.flatMap((p) => [p.edge ?? 0, p.shadow_area > 0 ? p.shadow_percent : 0])))
  const x = $derived(scaleLinear([0, far], [LEFT, width - 8]))
  const y = $derived(scaleLinear([0, top], [HEIGHT - BOTTOM, 6]))
  const drawn = $derived((value: (p: AtDistance) => number | null) =>
    line<AtDistance>()
      .defined((p) => value(p) !== null)
      .x((p) => x(p.z))
      .y((p) => y(value(p) ?? 0))(curve),
  )
  const shadow = (p: AtDistance) => (p.shadow_area > 0 ? p.shadow_percent : 0)
  const here = $derived(plan.subject?.z ?? 0)
  const metres = (v: number) => showLength(v, prefs.length)

  function go(point: AtDistance) {
    void session.attempt({ text: `Mark ${point.z.toFixed(2)} m from the screen, with its lamps and the camera`, changes: point.changes })
  }
  const nearest = (z: number) => curve.reduce((a, b) => (Math.abs(b.z - z) < Math.abs(a.z - z) ? b : a))
  const tried = $derived(session.ghost?.plan.subject?.z ?? here)
  function key(event: KeyboardEvent) {
    const step = { ArrowRight: 1, ArrowUp: 1, ArrowLeft: -1, ArrowDown: -1 }[event.key]
    if (step === undefined || !curve.length) return
    event.preventDefault()
    const i = curve.indexOf(nearest(tried)) + step
    if (curve[i]) go(curve[i])
  }
  function pointer(event: PointerEvent) {
    if (event.buttons !== 1 || !curve.length) return
    const svg = event.currentTarget as SVGSVGElement
    svg.setPointerCapture(event.pointerId)
    const z = x.invert(event.clientX - svg.getBoundingClientRect().left)
    const point = nearest(z)
    if (Math.abs(point.z - tried) > 0.01) go(point)
  }
</script>

<section aria-label="Distance" class="mt-3">
  <div class="flex items-center justify-between">
    <h2 class="font-semibold">Distance from the screen</h2>
    <button type="button" class="btn btn-sm" disabled={asked.busy} onclick={compute}
      >{asked.busy ? 'Computing' : found ? 'Compute again' : 'Shadow and spill by distance'}</button
    >
  </div>
  {#if asked.error}<p role="alert" class="text-primary">{asked.error}</p>{/if}
  {#if found && curve.length}
    {#if of !== plan}<p class="label-text mt-1">Computed before the last change.</p>{/if}
    <div class="mt-1" bind:clientWidth={width}>
      <svg
        {width}
        height={HEIGHT}
        class="block touch-none bg-base-300"
        role="slider"
        tabindex="0"
        aria-label="Mark on the curve of shadow and spill"
        aria-valuemin={curve[0].z}
        aria-valuemax={curve[curve.length - 1].z}
        aria-valuenow={tried}
        aria-valuetext="{metres(tried)} from the screen"
        onkeydown={key}
        onpointerdown={pointer}
        onpointermove={pointer}
      >
        {#each [0, top / 2, top] as tick (tick)}
          <line x1={LEFT} x2={width} y1={y(tick)} y2={y(tick)} stroke="var(--line)" stroke-width="0.5" />
          <text x={LEFT - 4} y={y(tick) + 4} text-anchor="end" class="fill-quiet text-label">{tick.toFixed(0)} %</text>
        {/each}
        {#each curve as point (point.z)}<text x={x(point.z)} y={HEIGHT - 5} text-anchor="middle" class="fill-quiet text-label"
            >{point.z}</text
          >{/each}
        <path d={drawn(shadow)} fill="none" stroke="var(--color-base-content)" stroke-width="1.6" />
        <path d={drawn((p) => p.edge)} fill="none" stroke="var(--screen-{plan.screen.hue})" stroke-width="2.2" />
        <line x1={x(here)} x2={x(here)} y1="0" y2={HEIGHT - BOTTOM} stroke="var(--color-base-content)" stroke-dasharray="3 3" />
        {#if Math.abs(tried - here) > 0.01}<line
            x1={x(tried)}
            x2={x(tried)}
            y1="0"
            y2={HEIGHT - BOTTOM}
            stroke="var(--color-primary)"
            stroke-width="1.6"
          />{/if}
        <circle cx={x(tried)} cy={HEIGHT - BOTTOM} r="5" fill="var(--color-base-100)" stroke="var(--color-primary)" stroke-width="1.6" />
      </svg>
    </div>
    <p class="label-text mt-0.5">
      Coloured: screen colour on the edge, of the face's light. White: the shadow at its deepest where the screen is needed. The key, fill,
      back light and camera go with the mark.
    </p>
    <table class="table table-xs mt-2">
      <thead
        ><tr class="label-text text-left"
          ><th class="font-normal">School</th><th class="text-right font-normal">mark</th><th class="text-right font-normal">shadow</th><th
            class="text-right font-normal">edge</th
          ><th class="text-right font-normal">needs</th><th class="text-right font-normal">key on it</th><th class="text-right font-normal"
            >take it</th
          ></tr
        ></thead
      >
      <tbody>
        {#each found.schools as row (row.school)}
          <tr class="border-t border-line">
            <td class="py-0.5">{SCHOOLS[row.school]}</td>
            {#if row.found}
              {@const at = row.found}
              <td class="text-right">{metres(at.z)}</td>
              <td class="text-right">{shadow(at).toFixed(0)} %</td>
              <td class="text-right">{at.edge?.toFixed(1) ?? '–'} %</td>
              <td class="text-right whitespace-nowrap">{at.needed ? `${at.needed[0].toFixed(1)} × ${at.needed[1].toFixed(1)} m` : '–'}</td>
              <td class="text-right">{at.others_percent?.toFixed(0) ?? '–'} %</td>
              <td class="text-right"
                ><button type="button" class="btn btn-sm !px-1.5" aria-label="Try {SCHOOLS[row.school]}" onclick={() => go(at)}>Try</button
                ></td
              >
            {:else}
              <td colspan="6" class="text-quiet">{row.why_not}</td>
            {/if}
          </tr>
        {/each}
      </tbody>
    </table>
  {/if}
</section>
