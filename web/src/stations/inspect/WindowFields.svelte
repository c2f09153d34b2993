<script lang="ts">
  /** A glass pane of the set, parallel to the screen. */
  import Switch from '../../parts/Switch.svelte'
  import NumberField from '../../parts/NumberField.svelte'
  import { session } from '../../lib/session.svelte'
  import type { Plan } from '../../lib/types'
  import { set } from './set'
  let { plan }: { plan: Plan } = $props()
  const pane = $derived(plan.window!)
  const FIELDS = [
    ['x', 'across', -100, 100],
    ['y', 'height', -100, 100],
    ['z', 'from screen', -100, 100],
    ['width', 'Width', 0.001, 20],
    ['height', 'Height', 0.001, 20],
  ] as const
</script>

{#each FIELDS as [field, label, min, max] (field)}
  <NumberField {label} unit="m" step={0.05} {min} {max} value={pane[field]} onchange={set(`window.${field}`)} />
{/each}
<Switch label="In a wall" value={pane.in_wall} onchange={set('window.in_wall')} />
{#if pane.in_wall}
  <NumberField
    label="Film on the pane"
    unit="stops"
    step={1}
    min={0}
    max={10}
    value={pane.film_stops}
    onchange={set('window.film_stops')}
  />
{/if}
<button type="button" class="btn btn-sm mt-2" onclick={() => ((session.selected = null), session.change([{ path: 'window', value: null }]))}
  >No window</button
>
