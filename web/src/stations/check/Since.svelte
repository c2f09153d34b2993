<script lang="ts">
  /** What has drifted on the screen from another frame or clip to this one: level, hue, colour of the light, noise. */
  import DifferenceTable from './DifferenceTable.svelte'
  import { driftSince } from '../../lib/checkApi'
  import { opened } from '../../lib/resource.svelte'
  import type { Drift, Frame, FrameSummary } from '../../lib/types'
  let { frame, frames }: { frame: Frame; frames: FrameSummary[] } = $props()

  const others = $derived(frames.filter((one) => one.id !== frame.id && one.level !== null))
  let chosen = $state(0)
  const other = $derived(others.find((one) => one.id === chosen) ?? others.find((one) => one.id < frame.id) ?? others[0])
  const asked = opened<Drift>()
  const drift = $derived(asked.value)
  $effect(() => {
    const [id, before] = [frame.id, other?.id]
    asked.clear()
    // A frame may have been removed meanwhile; then there is nothing to tell.
    if (before !== undefined) void asked.ask(() => driftSince(id, before))
  })
  /** A shift of colour has no value of its own, only a change. */
  const rows = $derived(
    (drift?.rows ?? []).map((row) => {
      const alone = row.name === 'Colour of the light'
      return { ...row, from: alone ? null : row.before, to: alone ? null : row.now }
    }),
  )
</script>

{#if other && frame.reading.level_luma}
  <section aria-label="Drift" class="mt-3">
    <p class="flex items-center gap-2">
      <span>Since</span>
      {#if others.length > 1}
        <select
          class="select select-sm !w-auto max-w-56 truncate"
          aria-label="Compared with"
          value={String(other.id)}
          onchange={(event) => (chosen = Number(event.currentTarget.value))}
        >
          {#each others as one (one.id)}<option value={String(one.id)}>{one.name}</option>{/each}
        </select>
      {:else}<span class="truncate font-semibold">{other.name}</span>{/if}
    </p>
    {#if drift?.rows.length}
      <DifferenceTable heads={['On the screen', 'then', 'now', 'change']} {rows} />
    {/if}
  </section>
{/if}
