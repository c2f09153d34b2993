<script lang="ts">
  import NumberField from '../../parts/NumberField.svelte'
  import type { Plan } from '../../lib/types'
  import { set } from './set'
  let { plan }: { plan: Plan } = $props()
  const p = $derived(plan.plate)
</script>

<p class="label-text">
  What the plate asks of the set. Its mean level moves the wanted screen level (school: follow the plate) and how dark the face may be.
</p>
<NumberField
  label="Mean level"
  unit="%"
  digits={0}
  step={1}
  field="plate.mean_level"
  value={p.mean_level}
  onchange={set('plate.mean_level')}
/>
<NumberField
  label="Light, azimuth"
  unit="°"
  digits={0}
  step={5}
  field="plate.key_azimuth"
  value={p.key_azimuth}
  onchange={set('plate.key_azimuth')}
/>
<NumberField
  label="Light, elevation"
  unit="°"
  digits={0}
  step={5}
  field="plate.key_elevation"
  value={p.key_elevation}
  onchange={set('plate.key_elevation')}
/>
<NumberField label="Colour" unit="K" digits={0} step={100} field="plate.cct" value={p.cct} onchange={set('plate.cct')} />
<NumberField label="Lens height" unit="m" field="plate.camera_height" value={p.camera_height} onchange={set('plate.camera_height')} />
<NumberField label="Tilt" unit="°" digits={1} step={0.5} field="plate.tilt" value={p.tilt} onchange={set('plate.tilt')} />
<NumberField
  label="Lens, full frame"
  unit="mm"
  digits={1}
  step={1}
  field="plate.focal_mm_ff"
  value={p.focal_mm_ff}
  onchange={set('plate.focal_mm_ff')}
/>
<NumberField
  label="Shutter angle"
  unit="°"
  digits={0}
  step={10}
  field="plate.shutter_angle"
  value={p.shutter_angle}
  onchange={set('plate.shutter_angle')}
/>
