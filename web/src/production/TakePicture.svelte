<script lang="ts">
  /** The newest picture of the set-up, as the watched folder brought it: one that came after the last take goes with
      the next, unless it is put aside. */
  import { listFrames } from '../lib/api'
  import { listenFor } from '../lib/events'
  import type { FrameSummary } from '../lib/types'
  let {
    setup,
    after,
    chosen,
  }: { setup: number | null; after: string | null; chosen: (picture: { id: number; name: string } | null) => void } = $props()

  let newest = $state.raw<FrameSummary | null>(null)
  /** What a person said; else by the time. */
  let said = $state<boolean | null>(null)
  const goes = $derived(said ?? (newest !== null && (after === null || Date.parse(newest.created) > Date.parse(after))))
  async function look(id: number) {
    newest = (await listFrames(id).catch(() => []))[0] ?? null
  }
  $effect(() => {
    if (setup === null) return
    const id = setup
    void look(id)
    return listenFor(['frames'], id, () => void look(id))
  })
  $effect(() => {
    void after
    said = null
  })
  $effect(() => chosen(goes && newest ? { id: newest.id, name: newest.name } : null))
</script>

{#if newest}
  <figure class="flex items-center gap-3">
    <img class="h-20 bg-base-300" src="/api/frames/{newest.id}/look.jpg" alt="Newest picture of this set-up: {newest.name}" />
    <figcaption class="min-w-0 flex-1">
      <span class="block truncate">{newest.name}</span>
      <label class="flex min-h-11 cursor-pointer items-center gap-2"
        ><input
          type="checkbox"
          class="checkbox checkbox-sm checkbox-primary rounded-xs"
          checked={goes}
          onchange={(event) => (said = event.currentTarget.checked)}
        /> goes with this take</label
      >
    </figcaption>
  </figure>
{/if}
