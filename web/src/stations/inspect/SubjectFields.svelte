<script lang="ts">
  import Choice from '../../parts/Choice.svelte'
  import NumberField from '../../parts/NumberField.svelte'
  import Switch from '../../parts/Switch.svelte'
  import { FRAMINGS } from '../../lib/framings'
  import type { Plan } from '../../lib/types'
  import { set } from './set'
  let { plan }: { plan: Plan } = $props()
  const s = $derived(plan.subject)

  const SIDES = [
    ['left', 'reach left'],
    ['right', 'reach right'],
    ['up', 'above the head'],
    ['front', 'toward camera'],
    ['back', 'toward screen'],
  ] as const
</script>

{#if s}
  <NumberField label="from screen" unit="m" step={0.05} field="subject.z" value={s.z} onchange={set('subject.z')} />
  <NumberField label="across" unit="m" step={0.05} field="subject.x" value={s.x} onchange={set('subject.x')} />
  <NumberField label="Body height" unit="m" step={0.01} field="subject.height" value={s.height} onchange={set('subject.height')} />
  <Choice
    label="Build"
    value={s.body}
    options={[
      ['man', 'man'],
      ['woman', 'woman'],
      ['child', 'child'],
    ]}
    onchange={set('subject.body')}
  />
  <Choice label="Framing" value={s.framing} options={FRAMINGS} onchange={set('subject.framing')} />
  <Choice
    label="Posture"
    value={s.posture}
    options={[
      ['standing', 'standing'],
      ['seated', 'seated'],
    ]}
    onchange={set('subject.posture')}
  />
  <Switch label="Feet are seen" value={s.feet_seen} onchange={set('subject.feet_seen')} />
  <NumberField
    label="Fastest move"
    unit="m/s"
    digits={1}
    step={0.1}
    field="subject.speed"
    value={s.speed}
    onchange={set('subject.speed')}
  />
  <div class="my-1 border-t border-line"></div>
  {#each SIDES as [side, label] (side)}
    <NumberField
      {label}
      unit="m"
      step={0.05}
      field={`subject.envelope.${side}`}
      value={s.envelope[side]}
      onchange={set(`subject.envelope.${side}`)}
    />
  {/each}
{:else}
  <p class="text-quiet">No figure in this set-up: the whole frame has to be screen.</p>
{/if}
