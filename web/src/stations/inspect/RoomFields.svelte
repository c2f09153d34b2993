<script lang="ts">
  /** The room in the words of the job; where its walls lie exactly stands behind. */
  import Choice from '../../parts/Choice.svelte'
  import NumberField from '../../parts/NumberField.svelte'
  import SchoolWhy from '../../parts/SchoolWhy.svelte'
  import { TONES } from '../../lib/facts.generated'
  import { roomChanges, roomSaid, SURFACES } from '../../lib/roomWords'
  import { session } from '../../lib/session.svelte'
  import type { Tone } from '../../lib/startApi'
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
  const said = $derived(roomSaid(r))
  const words: [string, string][] = Object.keys(TONES).map((tone) => [tone, tone])
  const say = (fields: Partial<typeof said>) => session.change(roomChanges(r, { ...said, ...fields }))
</script>

<Choice label="Distance school" value={plan.targets.distance_school} options={DISTANCES} onchange={set('targets.distance_school')} />
<SchoolWhy rule="space.gap" />
<Choice
  label="Kind"
  value={r.kind}
  options={[
    ['interior', 'indoors'],
    ['exterior', 'outdoors'],
  ]}
  onchange={set('room.kind')}
/>
{#if r.kind === 'interior'}
  <NumberField label="Length" unit="m" min={1} max={100} value={said.length!} onchange={(length) => say({ length })} />
  <NumberField label="Width" unit="m" min={1} max={100} value={said.width!} onchange={(width) => say({ width })} />
  <NumberField label="Height" unit="m" field="room.height" value={r.height} onchange={set('room.height')} />
  {#each SURFACES as surface (surface)}
    <Choice
      label={surface[0].toUpperCase() + surface.slice(1)}
      value={said[surface]!}
      options={words}
      onchange={(word) => say({ [surface]: word as Tone })}
    />
  {/each}
{/if}
<NumberField
  label="Light that is there"
  unit="lx"
  digits={0}
  step={10}
  field="room.ambient_lux"
  value={r.ambient_lux}
  onchange={set('room.ambient_lux')}
/>
<details>
  <summary class="label-text cursor-pointer">exact</summary>
  <NumberField label="Left wall" unit="m" field="room.x_min" value={r.x_min} onchange={set('room.x_min')} />
  <NumberField label="Right wall" unit="m" field="room.x_max" value={r.x_max} onchange={set('room.x_max')} />
  <NumberField label="Wall behind screen" unit="m" field="room.z_min" value={r.z_min} onchange={set('room.z_min')} />
  <NumberField label="Wall behind camera" unit="m" field="room.z_max" value={r.z_max} onchange={set('room.z_max')} />
  <NumberField label="Mains" unit="Hz" digits={0} step={10} field="room.mains.hz" value={r.mains.hz} onchange={set('room.mains.hz')} />
</details>
