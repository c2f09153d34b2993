<script lang="ts">
  /** The newest picture of the set-up, as the watched folder brought it: it goes with the take unless it is put aside. */
  import { listFrames } from '../lib/api'
  import { listenFor } from '../lib/events'
  import type { FrameSummary } from '../lib/types'
  let { setup, chosen }: { setup: number | null; chosen: (frame: number | null) => void } = $props()

  let newest = $state.raw<FrameSummary | null>(null)
  let with_ = $state(true)
  async function look(id: number) {
    newest = (await listFrames(id).catch(() => []))[0] ?? null
  }
  $effect(() => {
    if (setup === null) return
    const id = setup
    void look(id)
    return listenFor(['frames'], id, () => void look(id))
  })
  $effect(() => chosen(with_ ? (newest?.id ?? null) : null))
</script>

{#if newest}
  <figure class="flex items-center gap-3">
    <img class="h-20 bg-base-300" src="/api/frames/{newest.id}/look.jpg" alt="Newest picture of this set-up: {newest.name}" />
    <figcaption class="min-w-0 flex-1">
      <span class="block truncate">{newest.name}</span>
      <label class="flex min-h-11 cursor-pointer items-center gap-2"
        ><input type="checkbox" class="checkbox checkbox-sm checkbox-primary rounded-xs" bind:checked={with_} /> goes with this take</label
      >
    </figcaption>
  </figure>
{/if}
