<script lang="ts">
  /** Where the camera really stood beside where it was planned; the subject's mark from its height. */
  import { plain } from '../../lib/units'
  import NumberField from '../../parts/NumberField.svelte'
  import { poseOf } from '../../lib/checkApi'
  import { session } from '../../lib/session.svelte'
  import type { Corner, Pose } from '../../lib/types'
  let {
    pose,
    frameId,
    corners,
    close,
    update,
  }: { pose: Pose; frameId: number; corners: Corner[]; close: () => void; update: (pose: Pose) => void } = $props()

  let height = $state(session.plan?.subject?.height ?? 1.75)
  let foot = $state.raw({ u: 50, v: 92 })
  let head = $state.raw({ u: 50, v: 20 })
  let error = $state('')
  const n = (value: number, unit: string) => `${plain(value, unit === 'm' ? 2 : 1)} ${unit}`
  async function mark() {
    error = ''
    await poseOf(frameId, corners, { foot: [foot.u / 100, foot.v / 100], head: [head.u / 100, head.v / 100], height }).then(
      update,
      (err: Error) => (error = err.message),
    )
  }
</script>

<section aria-label="Tape measure" class="mt-2 border-t border-line pt-2">
  <h3 class="flex justify-between font-semibold">
    Tape measure from the frame<button type="button" class="label-text cursor-pointer font-normal hover:text-ink" onclick={close}
      >close</button
    >
  </h3>
  <table class="table table-xs mt-1">
    <thead
      ><tr class="label-text text-right"
        ><th class="text-left font-normal">Measured</th><th class="font-normal">planned</th><th class="font-normal">really</th><th
          class="font-normal">give or take</th
        ><th class="font-normal">off by</th></tr
      ></thead
    >
    <tbody>
      {#each pose.rows as row (row.name)}
        {@const off = row.measured - row.planned}
        <tr class="border-t border-line text-right"
          ><td class="py-0.5 text-left">{row.name}</td><td class="text-quiet">{n(row.planned, row.unit)}</td><td class="font-semibold"
            >{n(row.measured, row.unit)}</td
          ><td class="text-quiet">{n(row.error, row.unit)}</td><td
            class:text-primary={Math.abs(off) > 3 * row.error && Math.abs(off) > 0.05}>{n(off, row.unit)}</td
          ></tr
        >
      {/each}
    </tbody>
  </table>
  <p class="label-text mt-1">
    From the screen's size and the lens; corners fit within {pose.misfit_px.toFixed(1)} px of 1920. {pose.mark_problem}
  </p>
  <details class="mt-1">
    <summary class="label-text cursor-pointer">The subject's mark, from foot and head</summary>
    <div class="mt-1 grid grid-cols-2 gap-x-6 gap-y-1">
      <NumberField
        label="Foot across"
        unit="%"
        digits={1}
        step={1}
        min={0}
        max={100}
        value={foot.u}
        onchange={(u) => (foot = { ...foot, u })}
      />
      <NumberField
        label="Foot down"
        unit="%"
        digits={1}
        step={1}
        min={0}
        max={100}
        value={foot.v}
        onchange={(v) => (foot = { ...foot, v })}
      />
      <NumberField
        label="Head across"
        unit="%"
        digits={1}
        step={1}
        min={0}
        max={100}
        value={head.u}
        onchange={(u) => (head = { ...head, u })}
      />
      <NumberField
        label="Head down"
        unit="%"
        digits={1}
        step={1}
        min={0}
        max={100}
        value={head.v}
        onchange={(v) => (head = { ...head, v })}
      />
      <NumberField label="Its height" unit="m" step={0.01} min={0.2} max={5} value={height} onchange={(v) => (height = v)} />
      <button type="button" class="btn btn-sm" onclick={mark}>Find the mark</button>
    </div>
  </details>
  {#if error}<p role="alert" class="mt-1 text-primary">{error}</p>{/if}
  <button type="button" class="btn btn-sm mt-2" onclick={() => session.change(pose.changes)}>Take over as built</button>
</section>
