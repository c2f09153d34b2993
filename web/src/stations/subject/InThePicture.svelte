<script lang="ts">
  /** Who is in the picture, and how each stands in it: choose somebody to see the fields, or add one more. */
  import { oneMore, peopleOf } from '../../lib/people'
  import { prefs } from '../../lib/prefs.svelte'
  import { session } from '../../lib/session.svelte'
  import type { Plan } from '../../lib/types'
  import { showLight, showValue } from '../../lib/units'
  let { plan }: { plan: Plan } = $props()

  const people = $derived(peopleOf(plan))
  const next = $derived(oneMore(plan))
  /** In the order of the people; between two answers there may be one more or less of them. */
  const told = $derived(session.evaluation?.check.people ?? [])
  const show = (value: number | null | undefined, unit: string, digits: number) =>
    value == null ? '–' : showValue(value, unit, digits, prefs.length, prefs.light)

  function add() {
    // Once that one is in the plan, the next is another.
    const one = next
    if (!one) return
    session.change([{ path: 'companions', value: [...plan.companions, one] }])
    session.selected = `person:${one.id}`
  }
</script>

<div class="flex flex-wrap items-center gap-2 pt-2" role="group" aria-label="In the picture">
  {#each people as person (person.thing)}
    <button
      type="button"
      data-opens-fields
      class="btn btn-sm"
      class:btn-active={session.selected === person.thing}
      aria-pressed={session.selected === person.thing}
      onclick={() => (session.selected = person.thing)}>{person.name}</button
    >
  {/each}
  {#if next}<button type="button" data-opens-fields class="btn btn-sm" onclick={add}>Add a person</button>{/if}
</div>
{#if people.length > 1 && told.length === people.length}
  <table class="table table-xs mt-2" aria-label="Each in the picture">
    <thead>
      <tr class="label-text text-right">
        <th class="text-left font-normal">In the picture</th><th class="font-normal">face</th><th class="font-normal">to grey</th>
        <th class="font-normal">skin</th><th class="font-normal">spill, face</th><th class="font-normal">edge</th>
        <th class="font-normal">key</th>
      </tr>
    </thead>
    <tbody>
      {#each people as person, i (person.thing)}
        {@const one = told[i]}
        <tr class="border-t border-line text-right">
          <td class="text-left">{person.name}</td><td>{one.subject_lux == null ? '–' : showLight(one.subject_lux, prefs.light)}</td>
          <td>{show(one.stops_over, 'stops', 1)}</td><td>{show(one.subject_level, '%', 0)}</td>
          <td>{show(one.spill_front, '%', 1)}</td><td>{show(one.spill_side, '%', 1)}</td>
          <td class="font-semibold">{one.quality == null ? '–' : `≈ ${one.quality.toFixed(0)}`}</td>
        </tr>
      {/each}
    </tbody>
  </table>
{/if}
