<script lang="ts">
  import Choice from '../../parts/Choice.svelte'
  import NumberField from '../../parts/NumberField.svelte'
  import type { Plan } from '../../lib/types'
  import { set } from './set'
  let { plan }: { plan: Plan } = $props()
  const r = $derived(plan.room)
  const DISTANCES: [string, string][] = [
    ['1m', 'about 1 m'],
    ['1.2-2m', '1.2 to 2 m'],
    ['2m-plus', '2 m and more'],
    ['3m', '3 m'],
    ['shadow-gone', 'when shadow is gone'],
  ]
</script>

<Choice label="Distance school" value={plan.targets.distance_school} options={DISTANCES} onchange={set('targets.distance_school')} />
<Choice
  label="Kind"
  value={r.kind}
  options={[
    ['interior', 'interior'],
    ['exterior', 'exterior'],
  ]}
  onchange={set('room.kind')}
/>
<NumberField label="Left wall" unit="m" field="room.x_min" value={r.x_min} onchange={set('room.x_min')} />
<NumberField label="Right wall" unit="m" field="room.x_max" value={r.x_max} onchange={set('room.x_max')} />
<NumberField label="Wall behind screen" unit="m" field="room.z_min" value={r.z_min} onchange={set('room.z_min')} />
<NumberField label="Wall behind camera" unit="m" field="room.z_max" value={r.z_max} onchange={set('room.z_max')} />
<NumberField label="Ceiling" unit="m" field="room.height" value={r.height} onchange={set('room.height')} />
<NumberField
  label="Ambient light"
  unit="lx"
  digits={0}
  step={10}
  field="room.ambient_lux"
  value={r.ambient_lux}
  onchange={set('room.ambient_lux')}
/>
<NumberField label="Mains" unit="Hz" digits={0} step={10} field="room.mains.hz" value={r.mains.hz} onchange={set('room.mains.hz')} />
