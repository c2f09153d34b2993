<script lang="ts">
  /** A key of the real frame with one click: over what, with or without despill, with a clean plate where there is one. */
  import { trialOf } from '../../lib/checkApi'
  import { opened } from '../../lib/resource.svelte'
  import type { Frame, FrameSummary, Trial } from '../../lib/types'
  let { frame, others, show }: { frame: Frame; others: FrameSummary[]; show: (trial: Trial | null, source: string) => void } = $props()

  const OVER = [
    ['matte', 'matte'],
    ['dark', 'over dark'],
    ['bright', 'over bright'],
    ['plate', 'over the plate'],
    ['spilled', 'without despill'],
  ] as const
  let over = $state<(typeof OVER)[number][0]>('dark')
  let clean = $state(0)
  const asked = opened<Trial>()
  const found = $derived(asked.error ? null : asked.value)
  const error = $derived(asked.error)
  $effect(() => {
    const [id, plate] = [frame.id, clean || null]
    void asked.ask(() => trialOf(id, plate))
  })
  $effect(() => show(found, found ? `/api/frames/${frame.id}/trial/${over}.jpg${clean ? `?clean=${clean}` : ''}` : ''))
</script>

<div class="flex flex-wrap items-center gap-1.5 pb-2">
  {#each OVER as [which, word] (which)}<button
      type="button"
      class="btn btn-sm"
      class:btn-active={over === which}
      aria-pressed={over === which}
      onclick={() => (over = which)}>{word}</button
    >{/each}
  {#if others.length}
    <select class="select select-sm !w-auto" aria-label="Clean plate" bind:value={clean}
      ><option value={0}>no clean plate</option>{#each others as f (f.id)}<option value={f.id}>clean plate: {f.name}</option>{/each}</select
    >
  {/if}
</div>
{#if error}<p role="alert" class="pb-2 text-primary">{error}</p>{/if}
{#if found}<p class="label-text pb-2">
    Residue on {found.residue_percent.toFixed(2)} % of the screen (boxes), holes in {found.holes_percent?.toFixed(2) ?? '–'} % of the figure (dashed);
    one clip for the whole screen would be {found.needed_clip.toFixed(2)}.
  </p>{/if}
