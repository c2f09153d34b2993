<script lang="ts">
  /** What stands on the set besides the screen, in the order in which it covers what is behind. */
  import CameraMark from './CameraMark.svelte'
  import FlagMark from './FlagMark.svelte'
  import LampMark from './LampMark.svelte'
  import SubjectMark from './SubjectMark.svelte'
  import TriedMarks from './TriedMarks.svelte'
  import WindowMark from './WindowMark.svelte'
  import type { Board } from '../../lib/board'
  import { peopleOf } from '../../lib/people'
  import type { Projection } from '../../lib/projection'
  import type { Plan } from '../../lib/types'
  let { board, view, tried }: { board: Board; view: Projection; tried: Plan | null } = $props()
</script>

{#if board.plan.window}<WindowMark {board} {view} pane={board.plan.window} />{/if}
{#each board.plan.flags as flag, index (flag.id)}<FlagMark {board} {view} {index} />{/each}
{#each board.plan.lights as lamp, index (lamp.id)}
  {#if lamp.fixture.emitter.shape !== 'sun'}<LampMark {board} {view} {index} />{/if}
{/each}
{#each peopleOf(board.plan).reverse() as person (person.thing)}<SubjectMark {board} {view} {person} />{/each}
<CameraMark {board} {view} />
{#if tried}<TriedMarks {board} {view} {tried} />{/if}
