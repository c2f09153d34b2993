<script lang="ts">
  /** Screen light: the school and its target, the waveform to expect, evening out, and each lamp's part. */
  import Circuits from './Circuits.svelte'
  import EvenScreen from './EvenScreen.svelte'
  import LampTable from './LampTable.svelte'
  import PlannedWave from './PlannedWave.svelte'
  import Choice from '../../parts/Choice.svelte'
  import NumberField from '../../parts/NumberField.svelte'
  import { session } from '../../lib/session.svelte'
  import type { Plan } from '../../lib/types'
  let { plan }: { plan: Plan } = $props()

  const SCHOOLS: [string, string][] = [
    ['below-face', 'below the face'],
    ['mid-grey', 'mid-grey'],
    ['follow-plate', 'follow the plate'],
    ['away-from-edge', 'away from the edge'],
    ['custom', 'own level'],
  ]
  const TRACES: [string, string][] = [
    ['luma', 'luma'],
    ['key-channel', 'key channel'],
  ]
  const map = $derived(session.evaluation?.map)
  const set = (path: string) => (value: unknown) => session.change([{ path, value }])

  function add() {
    const { screen, room } = plan
    const inside = Math.min(room.x_max - 0.4, screen.x_centre + screen.width / 2 + 0.5)
    const names = plan.lights.map((l) => l.id)
    let n = plan.lights.length + 1
    while (names.includes(`l${n}`)) n += 1
    const lamp = {
      id: `l${n}`,
      name: 'panel',
      role: 'screen',
      dimmer: 1,
      on: true,
      circuit: 'A',
      modifier: { kind: 'none' },
      gel: [1, 1, 1],
      fixture: {
        emitter: { shape: 'rect', width: 0.6, height: 0.6 },
        flux_lm: 6000,
        beam: { kind: 'lambert' },
        cct: plan.camera.white_balance_k,
        duv: 0,
        cri: 95,
        watts: 60,
      },
      position: [inside, screen.bottom + screen.height / 2, 2],
      aim: [screen.x_centre, screen.bottom + screen.height / 2, 0],
    }
    session.change([{ path: 'lights', value: [...plan.lights, lamp] }])
    session.selected = `light:${lamp.id}`
  }
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
    <Choice label="School" value={plan.targets.level_school} options={SCHOOLS} onchange={set('targets.level_school')} />
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
  <PlannedWave evaluation={session.ghost?.evaluation ?? session.evaluation} />
  <EvenScreen {plan} />
  <LampTable {plan} />
  <button type="button" class="btn btn-sm mt-2" onclick={add}>Add a panel</button>
  <button type="button" class="btn btn-sm mt-2 ml-1.5" onclick={addCloth}>Add black cloth</button>
  <Circuits />
</section>
