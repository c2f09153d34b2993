<script lang="ts">
  /** Where somebody stands, and how far the action reaches; the picture's framing is the subject's. */
  import Choice from '../../parts/Choice.svelte'
  import NumberField from '../../parts/NumberField.svelte'
  import Switch from '../../parts/Switch.svelte'
  import TextField from '../../parts/TextField.svelte'
  import { FRAMINGS } from '../../lib/framings'
  import type { Person } from '../../lib/people'
  import { session } from '../../lib/session.svelte'
  import { set } from './set'
  let { person }: { person: Person | null } = $props()
  const s = $derived(person?.subject)
  const at = $derived(person?.path ?? 'subject')
  const companion = $derived(person !== null && person.index !== null)

  const SIDES = [
    ['left', 'reach left'],
    ['right', 'reach right'],
    ['up', 'above the head'],
    ['front', 'toward camera'],
    ['back', 'toward screen'],
  ] as const
</script>

{#if s && person}
  {#if companion}<TextField label="Name" value={person.name} onchange={set(`${at}.name`)} />{/if}
  <NumberField label="from screen" unit="m" step={0.05} field="subject.z" value={s.z} onchange={set(`${at}.z`)} />
  <NumberField label="across" unit="m" step={0.05} field="subject.x" value={s.x} onchange={set(`${at}.x`)} />
  <NumberField label="Body height" unit="m" step={0.01} field="subject.height" value={s.height} onchange={set(`${at}.height`)} />
  <Choice
    label="Build"
    value={s.body}
    options={[
      ['man', 'man'],
      ['woman', 'woman'],
      ['child', 'child'],
    ]}
    onchange={set(`${at}.body`)}
  />
  {#if !companion}<Choice label="Framing" value={s.framing} options={FRAMINGS} onchange={set('subject.framing')} />{/if}
  <Choice
    label="Posture"
    value={s.posture}
    options={[
      ['standing', 'standing'],
      ['seated', 'seated'],
    ]}
    onchange={set(`${at}.posture`)}
  />
  {#if !companion}<Switch label="Feet are seen" value={s.feet_seen} onchange={set('subject.feet_seen')} />{/if}
  <NumberField label="Fastest move" unit="m/s" digits={1} step={0.1} field="subject.speed" value={s.speed} onchange={set(`${at}.speed`)} />
  <div class="my-1 border-t border-line"></div>
  {#each SIDES as [side, label] (side)}
    <NumberField
      {label}
      unit="m"
      step={0.05}
      field={`subject.envelope.${side}`}
      value={s.envelope[side]}
      onchange={set(`${at}.envelope.${side}`)}
    />
  {/each}
  {#if companion}
    <button type="button" class="btn btn-sm mt-2" onclick={() => session.removeSelected()}>Remove {person.name}</button>
  {/if}
{:else}
  <p class="text-quiet">No figure in this set-up: the whole frame has to be screen.</p>
{/if}
