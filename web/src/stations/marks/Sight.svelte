<script lang="ts">
  /** The lens' field and the rays to the part of the screen that is needed, with a bracket round that part. */
  import type { Board } from '../../lib/board'
  import type { Projection } from '../../lib/projection'
  import { path } from '../../lib/sheet'
  let { board, view }: { board: Board; view: Projection } = $props()

  const lens = $derived([board.plan.camera.x, board.plan.camera.y, board.plan.camera.z])
  const field = $derived(board.evaluation?.field_on_screen)
  const needed = $derived(board.evaluation?.check.coverage.needed)
  const short = $derived(board.evaluation?.check.coverage.covered === false)
  function rays(on: readonly number[]) {
    const [one, other] = view.ends(on)
    return path([view.at(one), view.at(lens), view.at(other)])
  }
  function bracket(on: readonly number[]) {
    const [[x, one], [, other]] = view.ends(on).map(view.at)
    return path([
      [x - 8, one],
      [x - 13, one],
      [x - 13, other],
      [x - 8, other],
    ])
  }
</script>

{#if field}<path class="hair" d={rays(field)} stroke-dasharray="1 4" />{/if}
{#if needed}
  <path class="sight" d={rays(needed)} stroke-dasharray="6 3" />
  <path
    d={bracket(needed)}
    fill="none"
    stroke={short ? 'var(--color-primary)' : 'var(--color-base-content)'}
    stroke-width={short ? 2 : 1}
  />
{/if}
