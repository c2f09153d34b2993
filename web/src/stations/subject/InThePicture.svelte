<script lang="ts">
  /** Who is in the picture: choose somebody to see the fields, or add one more. */
  import { oneMore, peopleOf } from '../../lib/people'
  import { session } from '../../lib/session.svelte'
  import type { Plan } from '../../lib/types'
  let { plan }: { plan: Plan } = $props()

  const people = $derived(peopleOf(plan))
  const next = $derived(oneMore(plan))

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
