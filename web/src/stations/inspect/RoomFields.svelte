<script lang="ts">
  /** The room in the words of the job; where its walls lie exactly stands behind. */
  import Choice from '../../parts/Choice.svelte'
  import NumberField from '../../parts/NumberField.svelte'
  import SchoolWhy from '../../parts/SchoolWhy.svelte'
  import { round } from '../../lib/changes'
  import { TONES } from '../../lib/facts.generated'
  import { session } from '../../lib/session.svelte'
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
  const SURFACES = ['walls', 'ceiling', 'floor'] as const
  type Surface = (typeof SURFACES)[number]
  const words: [string, string][] = Object.keys(TONES).map((tone) => [tone, tone])
  const mean = (rgb: readonly number[]) => (rgb[0] + rgb[1] + rgb[2]) / 3
  /** The word that comes nearest by ratio. */
  function tone(surface: Surface): string {
    const own = Math.max(mean(r.reflectance[surface]), 1e-3)
    const far = (word: string) => Math.abs(Math.log2(own / mean(TONES[word])))
    return Object.keys(TONES).reduce((best, word) => (far(word) < far(best) ? word : best))
  }
  /** Both sides alike about the room's own middle. */
  function width(to: number) {
    const middle = (r.x_min + r.x_max) / 2
    session.change([
      { path: 'room.x_min', value: round(middle - to / 2, 3) },
      { path: 'room.x_max', value: round(middle + to / 2, 3) },
    ])
  }
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
  <NumberField
    label="Length"
    unit="m"
    min={1}
    max={100}
    value={r.z_max - r.z_min}
    onchange={(to) => session.change([{ path: 'room.z_max', value: round(r.z_min + to, 3) }])}
  />
  <NumberField label="Width" unit="m" min={1} max={100} value={r.x_max - r.x_min} onchange={width} />
  <NumberField label="Height" unit="m" field="room.height" value={r.height} onchange={set('room.height')} />
  {#each SURFACES as surface (surface)}
    <Choice
      label={surface[0].toUpperCase() + surface.slice(1)}
      value={tone(surface)}
      options={words}
      onchange={(word) => session.change([{ path: `room.reflectance.${surface}`, value: TONES[word] }])}
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
