<script lang="ts">
  /** A camera that moves needs marks; a figure that is multiplied needs its scale. */
  import NumberField from '../parts/NumberField.svelte'
  import { copies as ask, trackingMarks, type Crowd, type Move } from '../lib/moveApi'
  import { prefs } from '../lib/prefs.svelte'
  import { Resource } from '../lib/resource.svelte'
  import { session } from '../lib/session.svelte'
  import type { Copies, Plan, TrackingMarks } from '../lib/types'
  import { showLength } from '../lib/units'
  let { plan }: { plan: Plan } = $props()

  let move = $state<Move>({ wanted: 6, pan: 0, tilt: 0, travel: 0, zoom: 1 })
  let crowd = $state<Crowd>({ rows: 1, columns: 3, spacing: 1.4, row_depth: 1.5 })
  const marks = new Resource<TrackingMarks>()
  const copied = new Resource<Copies>()
  const placed = $derived(copied.error ? null : copied.value?.copies)
  const shade = $derived(copied.value?.shade)
  let marksOpen = $state(false)
  let copiesOpen = $state(false)

  $effect(() => {
    const [now, moving, many] = [plan, { ...move }, { ...crowd }]
    if (marksOpen) void marks.ask(() => trackingMarks(now, moving), 250)
    else marks.clear()
    if (copiesOpen) void copied.ask(() => ask(now, many), 250)
  })
  $effect(() => {
    session.marks = marks.error ? null : marks.value
    return () => (session.marks = null)
  })
  const rows = $derived([...new Set(placed?.map((c) => c.row) ?? [])])
  const overlapping = $derived(placed?.some((c) => c.overlaps) ?? false)
</script>

<details class="mt-3" bind:open={marksOpen}>
  <summary class="cursor-pointer font-semibold">A moving camera: tracking marks</summary>
  <div class="grid grid-cols-2 gap-x-6 gap-y-1 pt-1 max-sm:grid-cols-1">
    <NumberField label="Pan, in all" unit="°" digits={0} step={5} min={0} max={180} value={move.pan} onchange={(v) => (move.pan = v)} />
    <NumberField label="Tilt, in all" unit="°" digits={0} step={5} min={0} max={90} value={move.tilt} onchange={(v) => (move.tilt = v)} />
    <NumberField label="Travel" unit="m" min={0} max={20} value={move.travel} onchange={(v) => (move.travel = v)} />
    <NumberField
      label="Zoom, longest / shortest"
      digits={1}
      step={0.1}
      min={1}
      max={20}
      value={move.zoom}
      onchange={(v) => (move.zoom = v)}
    />
    <NumberField
      label="Marks in every frame"
      digits={0}
      step={1}
      min={1}
      max={50}
      value={move.wanted}
      onchange={(v) => (move.wanted = Math.round(v))}
    />
  </div>
  {#if session.marks}
    <p class="mt-1" class:text-primary={session.marks.says !== ''}>
      {session.marks.says ||
        `${session.marks.places.length} marks; at least ${session.marks.least} in every frame. They are drawn in the frame.`}
    </p>
    <p class="text-quiet">
      Small crosses of the screen's own hue at four fifths of its light, so that they key out; none behind hair and hands. Shoot one still
      take as an insurance.
    </p>
    {#if session.marks.places.length}
      <p class="label-text mt-1">
        Across, height: {session.marks.places.map(([x, y]) => `${showLength(x, prefs.length)}, ${showLength(y, prefs.length)}`).join(' · ')}
      </p>
    {/if}
  {/if}
</details>
<details class="mt-2" bind:open={copiesOpen}>
  <summary class="cursor-pointer font-semibold">Copies: one figure many times</summary>
  <div class="grid grid-cols-2 gap-x-6 gap-y-1 pt-1 max-sm:grid-cols-1">
    <NumberField
      label="Abreast"
      digits={0}
      step={1}
      min={1}
      max={24}
      value={crowd.columns}
      onchange={(v) => (crowd.columns = Math.round(v))}
    />
    <NumberField label="Apart" unit="m" min={0.2} max={20} value={crowd.spacing} onchange={(v) => (crowd.spacing = v)} />
    <NumberField label="Rows" digits={0} step={1} min={1} max={12} value={crowd.rows} onchange={(v) => (crowd.rows = Math.round(v))} />
    <NumberField label="Row behind row" unit="m" min={0} max={100} value={crowd.row_depth} onchange={(v) => (crowd.row_depth = v)} />
  </div>
  {#if placed?.length}
    <table class="table table-xs mt-1">
      <thead
        ><tr class="label-text text-right"
          ><th class="text-left font-normal">Row</th><th class="font-normal">behind the mark</th><th class="font-normal">scale</th><th
            class="font-normal">blur</th
          ><th class="font-normal">shadow</th><th class="font-normal">outside the picture</th></tr
        ></thead
      >
      <tbody>
        {#each rows as row (row)}
          {@const own = placed.filter((c) => c.row === row)}
          <tr class="border-t border-line text-right"
            ><td class="text-left">{row + 1}</td><td>{showLength(own[0].depth, prefs.length)}</td><td class="font-semibold"
              >{(100 * own[0].scale).toFixed(0)} %</td
            ><td>{own[0].blur_px.toFixed(0)} px</td><td
              >{own[0].shade_px == null ? '–' : `${own[0].shade_px.toFixed(0)} px, ${own[0].shade_deg!.toFixed(0)}°`}</td
            ><td>{own.filter((c) => c.outside).length} of {own.length}</td></tr
          >
        {/each}
      </tbody>
    </table>
    {#if overlapping}<p class="text-primary">
        Arms of neighbours reach into each other: {showLength(crowd.spacing, prefs.length)} apart is less than the reach of the action.
      </p>{/if}
    {#if shade}
      <p class="text-quiet">
        Shadows by {shade.lamp}: {showLength(shade.length_m, prefs.length)} on level ground; in the picture of the first in each row, clockwise
        from straight up. Blur is what the lens would make of that depth.
      </p>
    {/if}
    <p class="text-quiet">{placed.length} takes from one camera: height, tilt and lens stay as they are, or the ground no longer agrees.</p>
  {/if}
</details>
