<script lang="ts">
  import { SHUTTER_SCHOOLS } from '../../lib/schools'
  import Choice from '../../parts/Choice.svelte'
  import NumberField from '../../parts/NumberField.svelte'
  import SchoolWhy from '../../parts/SchoolWhy.svelte'
  import Switch from '../../parts/Switch.svelte'
  import { framingFor } from '../../lib/kitApi'
  import { SENSORS } from '../../lib/facts.generated'
  import { session } from '../../lib/session.svelte'
  import { readShutter } from '../../lib/typed'
  import type { Plan } from '../../lib/types'
  import { set } from './set'
  let { plan }: { plan: Plan } = $props()
  const c = $derived(plan.camera)
  /** By its width, within 5 %. */
  const sensor = $derived(Object.keys(SENSORS).find((word) => Math.abs(SENSORS[word][0] / c.sensor.width_mm - 1) < 0.05) ?? 'own')
  /** Fill the picture with the subject's framing: by where the camera stands, or by its lens. */
  async function fit(by: 'camera_z' | 'focal_mm') {
    const found = await framingFor(plan, plan.subject!.framing).catch((err: Error) => void (session.error = err.message))
    if (found) set(by === 'camera_z' ? 'camera.z' : 'camera.focal_mm')(found[by])
  }
  const CURVES: [string, string][] = [
    ['rec709', 'Rec.709'],
    ['hlg', 'HLG'],
    ['acescct', 'ACEScct'],
    ['linear', 'linear'],
  ]
  const ROLLS: [string, string][] = [
    ['0', 'upright'],
    ['90', 'turned right'],
    ['-90', 'turned left'],
  ]
</script>

<NumberField
  label="Focal length"
  unit="mm"
  digits={1}
  step={1}
  field="camera.focal_mm"
  value={c.focal_mm}
  onchange={set('camera.focal_mm')}
/>
<NumberField label="f-number" digits={1} step={0.1} field="camera.f_number" value={c.f_number} onchange={set('camera.f_number')} />
<NumberField label="opens to f/" digits={1} step={0.1} field="camera.widest" value={c.widest} onchange={set('camera.widest')} />
<NumberField
  label="Shutter 1 /"
  unit="s"
  digits={1}
  step={1}
  min={plan.medium === 'stills' ? 0.02 : c.fps}
  max={1000000}
  read={readShutter}
  value={1 / c.shutter_s}
  onchange={(n) => set('camera.shutter_s')(Number((1 / n).toPrecision(8)))}
/>
<NumberField label="ISO" digits={0} step={100} field="camera.iso" value={c.iso} onchange={set('camera.iso')} />
<NumberField label="Frames per second" digits={2} step={1} field="camera.fps" value={c.fps} onchange={set('camera.fps')} />
<NumberField label="ND" unit="st" digits={1} step={0.3} field="camera.nd_stops" value={c.nd_stops} onchange={set('camera.nd_stops')} />
{#if plan.subject}
  <div class="flex gap-1.5">
    <button type="button" class="btn btn-sm flex-1" onclick={() => fit('camera_z')}>Distance for this lens</button>
    <button type="button" class="btn btn-sm flex-1" onclick={() => fit('focal_mm')}>Lens from here</button>
  </div>
{/if}
<Choice label="Shutter school" value={plan.targets.shutter_school} options={SHUTTER_SCHOOLS} onchange={set('targets.shutter_school')} />
<SchoolWhy rule="camera.shutter-angle" />
<div class="my-1 border-t border-line"></div>
<NumberField label="across" unit="m" step={0.05} field="camera.x" value={c.x} onchange={set('camera.x')} />
<NumberField label="height" unit="m" step={0.05} field="camera.y" value={c.y} onchange={set('camera.y')} />
<NumberField label="from screen" unit="m" step={0.05} field="camera.z" value={c.z} onchange={set('camera.z')} />
<NumberField label="Pan" unit="°" digits={1} step={1} field="camera.pan" value={c.pan} onchange={set('camera.pan')} />
<NumberField label="Tilt" unit="°" digits={1} step={1} field="camera.tilt" value={c.tilt} onchange={set('camera.tilt')} />
<Choice label="Held" value={String(c.roll)} options={ROLLS} onchange={(v) => set('camera.roll')(Number(v))} />
<div class="my-1 border-t border-line"></div>
<NumberField
  label="White balance"
  unit="K"
  digits={0}
  step={100}
  field="camera.white_balance_k"
  value={c.white_balance_k}
  onchange={set('camera.white_balance_k')}
/>
<NumberField
  label="Base ISO"
  digits={0}
  step={100}
  field="camera.sensor.base_iso"
  value={c.sensor.base_iso}
  onchange={set('camera.sensor.base_iso')}
/>
<Choice
  label="Sensor"
  value={sensor}
  options={[
    ['phone', "a phone's"],
    ['small', 'small'],
    ['large', 'large'],
    ...(sensor === 'own' ? [['own', 'as below'] as [string, string]] : []),
  ]}
  onchange={(word) =>
    session.change([
      { path: 'camera.sensor.width_mm', value: SENSORS[word][0] },
      { path: 'camera.sensor.height_mm', value: SENSORS[word][1] },
    ])}
/>
<details open={sensor === 'own'}>
  <summary class="label-text cursor-pointer text-right">{c.sensor.width_mm} × {c.sensor.height_mm} mm</summary>
  <NumberField
    label="Sensor width"
    unit="mm"
    digits={1}
    step={0.1}
    field="camera.sensor.width_mm"
    value={c.sensor.width_mm}
    onchange={set('camera.sensor.width_mm')}
  />
  <NumberField
    label="Sensor height"
    unit="mm"
    digits={1}
    step={0.1}
    field="camera.sensor.height_mm"
    value={c.sensor.height_mm}
    onchange={set('camera.sensor.height_mm')}
  />
</details>
<NumberField
  label="Pixels across"
  digits={0}
  step={16}
  field="camera.sensor.px_w"
  value={c.sensor.px_w}
  onchange={(n) => set('camera.sensor.px_w')(Math.round(n))}
/>
<NumberField
  label="Pixels down"
  digits={0}
  step={16}
  field="camera.sensor.px_h"
  value={c.sensor.px_h}
  onchange={(n) => set('camera.sensor.px_h')(Math.round(n))}
/>
<Choice
  label="Curve"
  value={c.curve}
  options={c.curve_table ? [...CURVES, ['cube', 'own table']] : CURVES}
  onchange={set('camera.curve')}
/>
<Switch label="Sharpening" value={c.sharpening} onchange={set('camera.sharpening')} />
