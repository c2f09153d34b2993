<script lang="ts">
  /** Screen light: the school and its target, the waveform to expect, evening out, and each lamp's part. */
  import { LEVEL_SCHOOLS } from '../../lib/schools'
  import AddLamp from './AddLamp.svelte'
  import Circuits from './Circuits.svelte'
  import EvenScreen from './EvenScreen.svelte'
  import LampTable from './LampTable.svelte'
  import PlannedWave from './PlannedWave.svelte'
  import Choice from '../../parts/Choice.svelte'
  import NumberField from '../../parts/NumberField.svelte'
  import SchoolWhy from '../../parts/SchoolWhy.svelte'
  import { session } from '../../lib/session.svelte'
  import type { Plan } from '../../lib/types'
  let { plan }: { plan: Plan } = $props()

  const TRACES: [string, string][] = [
    ['luma', 'luma'],
    ['key-channel', 'key channel'],
  ]
  const map = $derived(session.evaluation?.map)
  const set = (path: string) => (value: unknown) => session.change([{ path, value }])

  function addCloth() {
    const x = Math.max(plan.room.x_min + 0.1, (plan.subject?.x ?? plan.screen.x_centre) - 1.2)
    const z = plan.subject?.z ?? 2
    const ids = plan.flags.map((f) => f.id)
    let n = plan.flags.length + 1
    while (ids.includes(`f${n}`)) n += 1
    const corners = [
      [x, 0, z - 1.2],
      [x, 2.4, z - 1.2],
      [x, 2.4, z + 1.2],
      [x, 0, z + 1.2],
    ]
    session.change([{ path: 'flags', value: [...plan.flags, { id: `f${n}`, corners, reflectance: [0.03, 0.03, 0.03] }] }])
    session.selected = `flag:f${n}`
  }
</script>

<section aria-label="Screen light" class="border-b border-line pb-3">
  <div class="grid grid-cols-2 gap-x-6 gap-y-1.5 pt-2 max-sm:grid-cols-1">
    <Choice label="School" value={plan.targets.level_school} options={LEVEL_SCHOOLS} onchange={set('targets.level_school')} />
    <Choice label="Read on" value={plan.targets.level_trace} options={TRACES} onchange={set('targets.level_trace')} />
    {#if plan.targets.level_school === 'custom'}
      <NumberField
        label="Wanted level"
        unit="%"
        digits={0}
        step={1}
        field="targets.screen_level"
        value={plan.targets.screen_level}
        onchange={set('targets.screen_level')}
      />
    {:else}
      <p class="flex justify-between">
        <span class="label-text">Wanted</span><span>{map ? `${map.target_low.toFixed(0)} to ${map.target_high.toFixed(0)} %` : '–'}</span>
      </p>
    {/if}
  </div>
  <SchoolWhy rule="light.level" />
  <PlannedWave evaluation={session.ghost?.evaluation ?? session.evaluation} />
  <EvenScreen {plan} />
  <LampTable {plan} />
  <div class="mt-2 flex gap-1.5">
    <AddLamp {plan} />
    <button type="button" data-opens-fields class="btn btn-sm" onclick={addCloth}>Add black cloth</button>
  </div>
  <Circuits />
</section>
