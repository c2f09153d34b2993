<script lang="ts">
  /** The floor from above to look at: nothing in it can be taken hold of. */
  import Floor from './Floor.svelte'
  import type { Board } from '../lib/board'
  import { sheetOf } from '../lib/sheet'
  import type { Evaluation, Plan } from '../lib/types'
  let { plan, evaluation }: { plan: Plan; evaluation: Evaluation } = $props()

  /** px of the section and the strip of dimensions above it, which are not shown here. */
  const HEIGHT = 420
  let width = $state(600)
  const nothing = () => {}
  const board: Board = $derived({ plan, evaluation, selected: null, select: nothing, change: nothing, settle: nothing })
  const sheet = $derived(sheetOf(plan, width, HEIGHT))
  const top = $derived(sheet.x(sheet.extent.x1) - 4)
  const tall = $derived((sheet.extent.x1 - sheet.extent.x0) * sheet.scale + 8)
</script>

<div class="mt-2" bind:clientWidth={width} inert>
  <svg {width} height={tall} viewBox="0 {top} {width} {tall}" class="block" aria-hidden="true"><Floor {board} {sheet} tried={null} /></svg>
</div>
