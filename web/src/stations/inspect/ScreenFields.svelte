<script lang="ts">
  import { session } from '../../lib/session.svelte'
  import Choice from '../../parts/Choice.svelte'
  import Grade from '../../parts/Grade.svelte'
  import NumberField from '../../parts/NumberField.svelte'
  import SchoolWhy from '../../parts/SchoolWhy.svelte'
  import type { Plan } from '../../lib/types'
  import NeededPart from './NeededPart.svelte'
  import { set } from './set'
  let { plan }: { plan: Plan } = $props()
  const s = $derived(plan.screen)
  const MATERIALS: [string, string][] = [
    'muslin',
    'paint',
    'paper',
    'foam-backed',
    'stretch',
    'pop-up',
    'framed',
    'vinyl',
    'velvet',
    'other',
  ].map((m) => [m, m])
  const FOLDS: [number, string][] = [
    [0.003, 'flat as a wall'],
    [0.01, 'pulled tight'],
    [0.03, 'steamed'],
    [0.06, 'in folds'],
    [0.12, 'creased'],
  ]
  const COVERS: [string, string][] = [
    ['where-needed', 'only where needed'],
    ['cover-frame', 'cover the frame'],
  ]
  /** A painted or dyed screen of each colour, as the design's reference gives green. */
  const CLOTH: Record<string, number[]> = { green: [0.06, 0.34, 0.1], blue: [0.05, 0.1, 0.4] }

  function hue(value: string) {
    const dyed = CLOTH[value] ? [{ path: 'screen.reflectance', value: CLOTH[value] }] : []
    session.change([{ path: 'screen.hue', value }, ...dyed])
  }
</script>

<Choice
  label="Colour"
  value={s.hue}
  options={[
    ['green', 'green'],
    ['blue', 'blue'],
    ['other', 'other'],
  ]}
  onchange={hue}
/>
<Choice label="Material" value={s.material} options={MATERIALS} onchange={set('screen.material')} />
<NumberField label="Width" unit="m" field="screen.width" value={s.width} onchange={set('screen.width')} />
<NumberField label="Height" unit="m" field="screen.height" value={s.height} onchange={set('screen.height')} />
<NumberField label="Lower edge" unit="m" field="screen.bottom" value={s.bottom} onchange={set('screen.bottom')} />
<NumberField label="Middle, across" unit="m" field="screen.x_centre" value={s.x_centre} onchange={set('screen.x_centre')} />
<NumberField label="Floor run" unit="m" field="screen.floor_run" value={s.floor_run} onchange={set('screen.floor_run')} />
{#if s.floor_run > 0}
  <NumberField label="Curve radius" unit="m" field="screen.curve_radius" value={s.curve_radius} onchange={set('screen.curve_radius')} />
{/if}
<NumberField label="Wing left" unit="m" field="screen.wing_left" value={s.wing_left} onchange={set('screen.wing_left')} />
<NumberField label="Wing right" unit="m" field="screen.wing_right" value={s.wing_right} onchange={set('screen.wing_right')} />
<Choice label="School" value={plan.targets.coverage_school} options={COVERS} onchange={set('targets.coverage_school')} />
<SchoolWhy rule="screen.covered" />
<NeededPart {plan} />
<Grade label="The cloth is" value={s.wrinkle_slope} words={FOLDS} field="screen.wrinkle_slope" onchange={set('screen.wrinkle_slope')} />
<NumberField
  label="Light from behind"
  unit="lx"
  digits={0}
  step={10}
  field="screen.behind_lux"
  value={s.behind_lux}
  onchange={set('screen.behind_lux')}
/>
<details>
  <summary class="label-text cursor-pointer">what it reflects, {s.reflectance.map((v) => v.toFixed(2)).join(' · ')}</summary>
  {#each ['R', 'G', 'B'] as channel, i (channel)}
    <NumberField
      label="Reflectance {channel}"
      step={0.01}
      min={0}
      max={1}
      value={s.reflectance[i]}
      onchange={(v) => set('screen.reflectance')(s.reflectance.map((old, k) => (k === i ? v : old)))}
    />
  {/each}
</details>
