<script lang="ts">
  /** What has drifted on the screen from another frame or clip to this one: level, hue, colour of the light, noise. */
  import { driftSince } from '../../lib/checkApi'
  import { plain, signed } from '../../lib/units'
  import type { Drift, Frame, FrameSummary } from '../../lib/types'
  let { frame, frames }: { frame: Frame; frames: FrameSummary[] } = $props()

  const others = $derived(frames.filter((one) => one.id !== frame.id && one.level !== null))
  let chosen = $state(0)
  const other = $derived(others.find((one) => one.id === chosen) ?? others.find((one) => one.id < frame.id) ?? others[0])
  let drift = $state.raw<Drift | null>(null)
  $effect(() => {
    const [id, before] = [frame.id, other?.id]
    drift = null
    if (before === undefined) return
    void driftSince(id, before).then((found) => {
      if (id === frame.id && before === other?.id) drift = found
    })
  })
  const digits = (name: string) => (name === 'Colour of the light' ? 0 : name === 'Noise' ? 2 : 1)
</script>

{#if other && frame.reading.level_luma}
  <section aria-label="Drift" class="mt-3">
    <p class="flex items-center gap-2"><span>Since</span>
      {#if others.length > 1}
        <select class="entry !w-auto max-w-56 truncate" aria-label="Compared with" value={String(other.id)} onchange={(event) => (chosen = Number(event.currentTarget.value))}>
          {#each others as one (one.id)}<option value={String(one.id)}>{one.name}</option>{/each}
        </select>
      {:else}<span class="truncate font-semibold">{other.name}</span>{/if}
    </p>
    {#if drift?.rows.length}
      <table class="mt-1 w-full">
        <thead><tr class="label-text text-right"><th class="text-left font-normal">On the screen</th><th class="font-normal">then</th><th class="font-normal">now</th><th class="font-normal">change</th></tr></thead>
        <tbody>
          {#each drift.rows as row (row.name)}
            {@const places = digits(row.name)}
            <tr class="text-right" class:border-b={!row.means} class:border-line={!row.means}>
              <td class="py-1 text-left">{row.name}</td>
              <td class="text-quiet">{row.name === 'Colour of the light' ? '' : plain(row.before, places)}</td>
              <td class="font-semibold">{row.name === 'Colour of the light' ? '' : plain(row.now, places)}</td>
              <td class:text-primary={row.means !== ''}>{signed(row.difference, places)} {row.unit}</td>
            </tr>
            {#if row.means}<tr class="border-b border-line"><td colspan="4" class="pb-1 text-primary first-letter:uppercase">{row.means}.</td></tr>{/if}
          {/each}
        </tbody>
      </table>
    {/if}
  </section>
{/if}
