<script lang="ts">
  import NumberField from '../../parts/NumberField.svelte'
  import type { Plan } from '../../lib/types'
  import { set } from './set'
  let { plan }: { plan: Plan } = $props()
  const p = $derived(plan.plate)
</script>

<p class="label-text">What the plate asks of the set. Its mean level moves the wanted screen level (school: follow the plate) and how dark the face may be.</p>
<NumberField label="Mean level" unit="%" digits={0} step={1} min={0} max={110} value={p.mean_level} onchange={set('plate.mean_level')} />
<NumberField label="Light, azimuth" unit="°" digits={0} step={5} min={-360} max={360} value={p.key_azimuth} onchange={set('plate.key_azimuth')} />
<NumberField label="Light, elevation" unit="°" digits={0} step={5} min={-90} max={90} value={p.key_elevation} onchange={set('plate.key_elevation')} />
<NumberField label="Colour" unit="K" digits={0} step={100} min={1000} max={25000} value={p.cct} onchange={set('plate.cct')} />
<NumberField label="Lens height" unit="m" min={-100} max={100} value={p.camera_height} onchange={set('plate.camera_height')} />
<NumberField label="Tilt" unit="°" digits={1} step={0.5} min={-90} max={90} value={p.tilt} onchange={set('plate.tilt')} />
<NumberField label="Lens, full frame" unit="mm" digits={1} step={1} min={1} max={2000} value={p.focal_mm_ff} onchange={set('plate.focal_mm_ff')} />
<NumberField label="Shutter angle" unit="°" digits={0} step={10} min={0.1} max={360} value={p.shutter_angle} onchange={set('plate.shutter_angle')} />
