<script lang="ts">
  import LampBeam from './LampBeam.svelte'
  import Choice from '../../parts/Choice.svelte'
  import Grade from '../../parts/Grade.svelte'
  import NumberField from '../../parts/NumberField.svelte'
  import Switch from '../../parts/Switch.svelte'
  import TextField from '../../parts/TextField.svelte'
  import { hexOf, reflectanceOf } from '../../lib/colour'
  import { prefs } from '../../lib/prefs.svelte'
  import { session } from '../../lib/session.svelte'
  import { isDaylight, type Plan } from '../../lib/types'
  import { showLight } from '../../lib/units'
  import { set } from './set'
  let { plan, index }: { plan: Plan; index: number } = $props()

  const lamp = $derived(plan.lights[index])
  const at = $derived(`lights[${index}]`)
  const share = $derived(session.evaluation?.lamps.find((l) => l.id === lamp.id))
  const emitter = $derived(lamp.fixture.emitter)
  const daylight = $derived(isDaylight(lamp))
  const place = (which: 'position' | 'aim', axis: number) => (value: number) =>
    session.change([{ path: `${at}.${which}`, value: lamp[which].map((v, i) => (i === axis ? value : v)) }])
  const range = $derived(lamp.fixture.cct_range ?? null)
  const gel = $derived(lamp.gel ?? [1, 1, 1])
  const gelled = $derived(gel.some((v) => v < 0.999))
  const ROLES: [string, string][] = [
    ['screen', 'screen'],
    ['key', 'key'],
    ['fill', 'fill'],
    ['back', 'back'],
    ['other', 'other'],
  ]
  const AXES = ['across', 'height', 'from screen']

  function burns(kind: string) {
    const power = kind === 'flash' ? { flash_lms: 2000, flux_lm: null, peak_cd: null } : { flash_lms: null, flux_lm: 6000 }
    session.change([{ path: `${at}.fixture`, value: { ...lamp.fixture, ...power } }])
  }
  function remove() {
    // The list first: with nothing selected, the index would be gone.
    const rest = plan.lights.filter((_, i) => i !== index)
    session.selected = null
    session.change([{ path: 'lights', value: rest }])
  }
  const TINTS: [number, string][] = [
    [-0.006, 'pinkish'],
    [0, 'clean'],
    [0.006, 'greenish'],
    [0.015, 'green'],
  ]
</script>

{#if share}
  <p class="mb-1 flex justify-between border-b border-line pb-2">
    <span><span class="label-text block">on the screen</span>{showLight(share.screen_lux, prefs.light)}</span>
    <span class="text-right"><span class="label-text block">on the face</span>{showLight(share.face_lux, prefs.light)}</span>
  </p>
{/if}
<label class="label-text" for="dimmer-{lamp.id}">{daylight ? 'Lets in' : 'Dimmer'} {(100 * lamp.dimmer).toFixed(0)} %</label>
<input
  id="dimmer-{lamp.id}"
  type="range"
  class="range range-xs range-primary w-full"
  min="0"
  max="1"
  step="0.01"
  value={lamp.dimmer}
  oninput={(event) => session.change([{ path: `${at}.dimmer`, value: Number(event.currentTarget.value) }], false)}
  onchange={() => session.settle()}
/>
<Switch label="On" value={lamp.on} onchange={set(`${at}.on`)} />
<Choice label="Role" value={lamp.role} options={ROLES} onchange={set(`${at}.role`)} />
<TextField label="Name" value={lamp.name} onchange={set(`${at}.name`)} />
{#if emitter.shape !== 'sun'}
  {#each AXES as name, axis (name)}
    <NumberField label={name} unit="m" value={lamp.position[axis]} step={0.05} min={-100} max={100} onchange={place('position', axis)} />
  {/each}
{/if}
{#each AXES as name, axis (name)}
  <NumberField label="aim, {name}" unit="m" value={lamp.aim[axis]} step={0.05} min={-100} max={100} onchange={place('aim', axis)} />
{/each}
{#if !daylight}<Choice
    label="Burns"
    value={lamp.fixture.flash_lms != null ? 'flash' : 'steady'}
    options={[
      ['steady', 'all the time'],
      ['flash', 'as a flash'],
    ]}
    onchange={burns}
  />{/if}
{#if lamp.fixture.flash_lms != null}
  <NumberField
    label="Flash at full"
    unit="lm s"
    digits={0}
    step={100}
    field="lights[].fixture.flash_lms"
    value={lamp.fixture.flash_lms}
    onchange={set(`${at}.fixture.flash_lms`)}
  />
  <NumberField
    label="Flash lasts 1 /"
    unit="s"
    digits={0}
    step={100}
    min={1}
    max={100000}
    value={1 / (lamp.fixture.flash_s ?? 0.001)}
    onchange={(n) => set(`${at}.fixture.flash_s`)(Number((1 / n).toPrecision(8)))}
  />
  <NumberField
    label="Ready again"
    unit="s"
    digits={1}
    step={0.1}
    field="lights[].fixture.recycle_s"
    value={lamp.fixture.recycle_s ?? 1.5}
    onchange={set(`${at}.fixture.recycle_s`)}
  />
{:else if lamp.fixture.flux_lm != null}
  <NumberField
    label="Flux"
    unit="lm"
    digits={0}
    step={100}
    field="lights[].fixture.flux_lm"
    value={lamp.fixture.flux_lm}
    onchange={set(`${at}.fixture.flux_lm`)}
  />
{:else if lamp.fixture.peak_cd != null}
  <NumberField
    label="Peak"
    unit="cd"
    digits={0}
    step={100}
    field="lights[].fixture.peak_cd"
    value={lamp.fixture.peak_cd}
    onchange={set(`${at}.fixture.peak_cd`)}
  />
{:else if lamp.fixture.normal_lux != null}
  <NumberField
    label="Sun"
    unit="lx"
    digits={0}
    step={1000}
    field="lights[].fixture.normal_lux"
    value={lamp.fixture.normal_lux}
    onchange={set(`${at}.fixture.normal_lux`)}
  />
{/if}
{#if lamp.fixture.luminance != null}
  <NumberField
    label="Sky luminance"
    unit="cd/m²"
    digits={0}
    step={100}
    field="lights[].fixture.luminance"
    value={lamp.fixture.luminance}
    onchange={set(`${at}.fixture.luminance`)}
  />
{/if}
{#if emitter.shape === 'rect' || emitter.shape === 'window'}
  <NumberField
    label="Face width"
    unit="m"
    value={emitter.width}
    field="lights[].fixture.emitter.width"
    step={0.05}
    onchange={set(`${at}.fixture.emitter.width`)}
  />
  <NumberField
    label="Face height"
    unit="m"
    value={emitter.height}
    field="lights[].fixture.emitter.height"
    step={0.05}
    onchange={set(`${at}.fixture.emitter.height`)}
  />
{:else if emitter.shape === 'disc'}
  <NumberField
    label="Face diameter"
    unit="m"
    value={emitter.diameter}
    field="lights[].fixture.emitter.diameter"
    step={0.05}
    onchange={set(`${at}.fixture.emitter.diameter`)}
  />
{/if}
<LampBeam {plan} {index} />
<NumberField
  label="Colour"
  unit="K"
  digits={0}
  step={100}
  field="lights[].fixture.cct"
  value={lamp.fixture.cct}
  onchange={set(`${at}.fixture.cct`)}
/>
{#if !daylight}<Switch
    label="Colour can be turned"
    value={Boolean(range)}
    onchange={(on) => set(`${at}.fixture.cct_range`)(on ? [2700, 6500] : null)}
  />
  {#if range}
    {#each ['from', 'to'] as word, i (word)}
      <NumberField
        label={word}
        unit="K"
        digits={0}
        step={100}
        field="lights[].fixture.cct"
        value={range[i] ?? 0}
        onchange={(value) => set(`${at}.fixture.cct_range`)(range.map((v, j) => (i === j ? value : v)))}
      />
    {/each}
  {/if}
  <Choice
    label="Flicker"
    value={lamp.fixture.flicker ?? 'unknown'}
    options={[
      ['unknown', 'not known'],
      ['mains', 'with the mains'],
      ['free', 'none'],
    ]}
    onchange={set(`${at}.fixture.flicker`)}
  />{/if}
<Grade
  label="Tint"
  value={lamp.fixture.duv}
  words={TINTS}
  digits={4}
  step={0.001}
  unit="Duv"
  field="lights[].fixture.duv"
  onchange={set(`${at}.fixture.duv`)}
/>
<NumberField
  label="Colour rendering"
  digits={0}
  step={1}
  field="lights[].fixture.cri"
  value={lamp.fixture.cri}
  onchange={set(`${at}.fixture.cri`)}
/>
<label class="flex items-center justify-between gap-2">
  <span class="label-text">Gel</span>
  <span class="flex items-center gap-1.5">
    {#if gelled}<button type="button" class="label-text cursor-pointer hover:text-ink" onclick={() => set(`${at}.gel`)([1, 1, 1])}
        >none</button
      >{/if}
    <input
      type="color"
      class="h-6 w-8 cursor-pointer border border-line bg-transparent"
      aria-label="Gel"
      value={hexOf(gel)}
      onchange={(event) => set(`${at}.gel`)(reflectanceOf(event.currentTarget.value))}
    />
  </span>
</label>
{#if !daylight}<NumberField
    label="Draws"
    unit="W"
    digits={0}
    step={10}
    field="lights[].fixture.watts"
    value={lamp.fixture.watts}
    onchange={set(`${at}.fixture.watts`)}
  />
  <TextField label="Circuit" value={lamp.circuit} onchange={set(`${at}.circuit`)} />{/if}
<button type="button" class="btn btn-sm mt-2" onclick={remove}>{emitter.shape === 'window' ? 'Remove window' : 'Remove lamp'}</button>
