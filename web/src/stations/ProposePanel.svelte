<script lang="ts">
  /** Whole set-ups proposed from room, kit, framing, plate and schools; one is taken, undo leads back. */
  import Choice from '../parts/Choice.svelte'
  import { FRAMINGS } from '../lib/framings'
  import { propose } from '../lib/kitApi'
  import { prefs } from '../lib/prefs.svelte'
  import { opened } from '../lib/resource.svelte'
  import { session } from '../lib/session.svelte'
  import type { Alternative, Framing, Plan, Proposals, Sentence } from '../lib/types'
  import { say } from '../lib/say'
  import { showValue } from '../lib/units'
  let { plan }: { plan: Plan } = $props()

  let framing = $derived<Framing>(plan.subject?.framing ?? 'waist')
  const search = opened<Proposals>()
  const found = $derived(search.value)
  const error = $derived(search.error)
  const MAIN = ['quality', 'gap', 'margin', 'level-luma', 'spread', 'over', 'smear']
  /** What a proposal decides; title, room, plate and schools stay as they are. */
  const DECIDED = ['screen', 'subject', 'companions', 'camera', 'lights'] as const

  const ask = () => void search.ask((signal) => propose(plan, framing, signal))
  function take(one: Alternative) {
    session.selected = null
    session.change(DECIDED.map((path) => ({ path, value: one.plan[path] })))
    search.clear()
  }
  const text = (words: Sentence) => say(words, prefs)
</script>

<div class="mt-3 flex flex-wrap items-center gap-3">
  <div class="w-64">
    <Choice label="A whole set-up for" value={framing} options={FRAMINGS} onchange={(v) => (framing = v as Framing)} />
  </div>
  <button type="button" class="btn btn-sm btn-primary" disabled={search.busy} onclick={ask}
    >{search.busy ? 'Searching' : 'Propose a set-up'}</button
  >
</div>
{#if error}<p role="alert" class="mt-1 text-primary">{error}</p>{/if}
{#if found}
  {#if found.impossible.length}
    <p class="mt-2 text-primary">Not in this room with this kit:</p>
    <ul class="list-inside list-disc">
      {#each found.impossible as why, i (i)}<li>{text(why)}</li>{/each}
    </ul>
  {/if}
  <ol class="mt-2">
    {#each found.alternatives as one (one.name)}
      <li class="border-t border-line py-2">
        <div class="flex items-start justify-between gap-3">
          <span><span class="font-semibold">{one.name}</span><span class="block">{text(one.says)}</span></span>
          <button type="button" class="btn btn-sm shrink-0" aria-label="Take: {one.name}" onclick={() => take(one)}>Take</button>
        </div>
        <dl class="mt-1 flex flex-wrap gap-x-4 gap-y-0.5">
          {#each one.numbers.filter((n) => MAIN.includes(n.id)) as n (n.id)}
            <span class="flex gap-1.5"
              ><dt class="label-text">{n.label}</dt>
              <dd>{showValue(n.value, n.unit, n.digits, prefs.length, prefs.light)}</dd></span
            >
          {/each}
        </dl>
        {#each one.stops as stop, i (i)}<p class="text-primary">{text(stop)}</p>{/each}
        {#if one.costs.length}
          <p class="label-text mt-1">What it takes</p>
          <ul class="text-quiet">
            {#each one.costs as cost, i (i)}<li class="border-l border-line pl-2">{text(cost)}</li>{/each}
          </ul>
        {/if}
      </li>
    {/each}
  </ol>
{/if}
