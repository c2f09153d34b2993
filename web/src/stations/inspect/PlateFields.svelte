<script lang="ts">
  import NumberField from '../../parts/NumberField.svelte'
  import type { Plan } from '../../lib/types'
  import { set } from './set'
  let { plan }: { plan: Plan } = $props()
  const p = $derived(plan.plate)
</script>

<p class="label-text">What the plate asks of the set. Its mean level moves the wanted screen level (school: follow the plate) and how dark the face may be.</p>
<NumberField label="Mean level" unit="%" digits={0} step={1} min={0} max={110} value={p.mean_level} onchange={set('plate.mean_level')} />
<NumberField label="Shutter angle" unit="°" digits={0} step={10} min={0.1} max={360} value={p.shutter_angle} onchange={set('plate.shutter_angle')} />
