<script lang="ts">
  /** What follows from what was said so far: one sentence, what the room can shoot, the drawing, what is open. */
  import Floor from '../stations/Floor.svelte'
  import Section from '../stations/Section.svelte'
  import State from '../parts/State.svelte'
  import type { Board } from '../lib/board'
  import { FRAMINGS } from '../lib/framings'
  import { prefs } from '../lib/prefs.svelte'
  import { say } from '../lib/say'
  import { sheetOf } from '../lib/sheet'
  import { STATE_OF, type Plan } from '../lib/types'
  import type { FirstSet, Possible } from '../lib/startApi'
  let { plan, first, possible, busy }: { plan: Plan | null; first: FirstSet | null; possible: Possible | null; busy: boolean } = $props()

  const SHOWN = 4
  const VERDICTS = { good: 'holds', usable: 'tight', no: 'fails' } as const
  let width = $state(640)
  let height = $state(420)
  const nothing = () => {}
  const board: Board | null = $derived(
    plan && { plan, evaluation: null, selected: null, select: nothing, change: nothing, settle: nothing },
  )
  const sheet = $derived(plan && sheetOf(plan, width, height))
  const can = $derived(possible?.possible ?? [])
  const word = (framing: string) => FRAMINGS.find(([key]) => key === framing)?.[1] ?? framing
  const MARK = { possible: 'holds', tight: 'tight', impossible: 'fails' } as const
</script>

<div class="flex h-full min-h-0 flex-col gap-2" aria-busy={busy}>
  <div class="min-h-[3.75rem]" role="status">
    {#if first}
      <p class="flex items-baseline gap-2 text-reading" class:opacity-50={busy}>
        <span class="shrink-0"><State state={VERDICTS[first.verdict]} word={false} size={14} /></span>
        <span>{say(first.says, prefs)}</span>
      </p>
      {#each first.told as one, i (i)}<p class="text-quiet">{say(one, prefs)}</p>{/each}
    {:else}
      <p class="text-reading text-quiet">{busy ? 'Working it out' : 'Say what you have; skip what you do not know.'}</p>
    {/if}
  </div>
  {#if can.length}
    <ul class="flex flex-wrap gap-x-4 gap-y-0.5" aria-label="What this room can shoot">
      <li class="text-quiet" aria-hidden="true">Space for</li>
      {#each can as one (one.framing)}
        <li class="flex items-center gap-1.5" title={say(one.why, prefs)}>
          <State state={MARK[one.state as keyof typeof MARK]} word={false} size={10} />
          <span class:text-quiet={one.state === 'impossible'} class:line-through={one.state === 'impossible'}>{word(one.framing)}</span>
        </li>
      {/each}
    </ul>
  {/if}
  <div class="min-h-64 flex-1 overflow-hidden border border-line" bind:clientWidth={width} bind:clientHeight={height} inert>
    {#if board && sheet}
      <svg {width} {height} class="block select-none" aria-hidden="true">
        <Section {board} {sheet} tried={null} />
        <Floor {board} {sheet} tried={null} />
      </svg>
    {/if}
  </div>
  {#if first && first.open.length}
    <ul class:opacity-50={busy}>
      {#each first.open.slice(0, SHOWN) as one, i (i)}
        <li class="flex items-baseline gap-2">
          <State state={STATE_OF[one.severity]} word={false} size={10} /><span>{say(one.says, prefs)}</span>
        </li>
      {/each}
      {#if first.open.length > SHOWN}<li class="label-text">and {first.open.length - SHOWN} more</li>{/if}
    </ul>
  {/if}
</div>
