<script lang="ts">
  /** What can this room shoot? Framing by lens; a cell is applied by choosing it. And whole proposals. */
  import MovePanel from './MovePanel.svelte'
  import RoomAsked from '../start/RoomAsked.svelte'
  import ProposePanel from './ProposePanel.svelte'
  import State from '../parts/State.svelte'
  import { FRAMINGS } from '../lib/framings'
  import { roomTable } from '../lib/kitApi'
  import { prefs } from '../lib/prefs.svelte'
  import { opened } from '../lib/resource.svelte'
  import { roomChanges, roomSaid } from '../lib/roomWords'
  import { session } from '../lib/session.svelte'
  import type { Cell, Plan, RoomTable, State as StateWord } from '../lib/types'
  import { say } from '../lib/say'
  import { showLength } from '../lib/units'
  let { plan }: { plan: Plan } = $props()

  const table = opened<RoomTable>()
  const lenses = $derived(table.value?.lenses ?? null)
  const cells = $derived(table.value?.cells ?? [])
  let shown = $state.raw<Cell | null>(null)

  const STATE: Record<Cell['state'], StateWord> = { possible: 'holds', tight: 'tight', impossible: 'fails' }
  const at = (framing: string, lens: string) => cells.find((c) => c.framing === framing && c.lens === lens)
  /** Only what the table depends on: a lamp that is dragged does not ask for it again. */
  const question = $derived(
    JSON.stringify([
      plan.room,
      plan.screen.hue,
      plan.subject?.height,
      plan.subject?.envelope,
      plan.targets.distance_school,
      plan.targets.coverage_school,
      plan.camera.sensor,
      plan.camera.y,
    ]),
  )

  $effect(() => {
    void question
    void table.ask(async (signal) => {
      await session.drawn()
      return roomTable(plan, signal)
    }, 250)
  })
</script>

<section aria-label="The room" class="border-b border-line py-2">
  <h2 class="mb-1 font-semibold">The room</h2>
  <RoomAsked room={roomSaid(plan.room)} onchange={(room) => session.change(roomChanges(plan.room, room))} />
</section>
<section aria-label="What this room can shoot" class="border-b border-line pb-3">
  <h2 class="pt-2 font-semibold">What can this room shoot?</h2>
  {#if table.error}<p role="alert" class="text-primary">{table.error}</p>{/if}
  {#if lenses?.length === 0}
    <p class="py-2 text-quiet">
      The table needs lenses and screens. <a class="text-primary underline" href="#/kit">Fill the kit room</a> first.
    </p>
  {:else if lenses}
    <table class="table table-xs mt-1 table-fixed text-center">
      <thead>
        <tr class="label-text"
          ><th class="w-24 text-left font-normal">Framing</th>{#each lenses as lens (lens)}<th class="font-normal">{lens}</th>{/each}</tr
        >
      </thead>
      <tbody>
        {#each FRAMINGS as [framing, word] (framing)}
          <tr class="border-t border-line">
            <th class="text-left font-normal">{word}</th>
            {#each lenses as lens (lens)}
              {@const cell = at(framing, lens)}
              <td>
                {#if cell}
                  <button
                    type="button"
                    class="w-full cursor-pointer py-1 hover:bg-base-200"
                    aria-label="{word} with {lens}: {cell.state}. {say(cell.why, prefs)}{cell.changes.length ? '. Apply' : ''}"
                    onmouseenter={() => (shown = cell)}
                    onfocus={() => (shown = cell)}
                    onclick={() => ((shown = cell), cell.changes.length && session.change(cell.changes))}
                  >
                    <State state={STATE[cell.state]} word={false} />
                    <span class="label-text ml-0.5">{cell.turned && cell.state !== 'impossible' ? 'turned' : cell.blocks}</span>
                  </button>
                {/if}
              </td>
            {/each}
          </tr>
        {/each}
      </tbody>
    </table>
    <p class="label-text mt-1 min-h-8" role="status">
      {#if shown}
        {FRAMINGS.find(([f]) => f === shown?.framing)?.[1]}, {shown.lens}: {shown.state}. {say(shown.why, prefs)}{shown.screen &&
        shown.camera_z !== null
          ? `; camera ${showLength(shown.camera_z, prefs.length)} from the screen, ${shown.screen}`
          : ''}
      {:else}
        Ring: possible. Triangle: tight. Cross: impossible, and what blocks it. Choosing a cell puts camera, mark and screen there.
      {/if}
    </p>
  {/if}
  <ProposePanel {plan} />
  <MovePanel {plan} />
</section>
