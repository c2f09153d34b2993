<script lang="ts">
  /** Planned beside measured by the same ruler; what a difference means stands under it. */
  import Term from '../../parts/Term.svelte'
  import { plain, signed } from '../../lib/units'
  import type { Comparison, Frame } from '../../lib/types'
  let { frame, compared }: { frame: Frame; compared: Comparison | null } = $props()

  const r = $derived(frame.reading)
  const digits = (name: string) => (name === 'Noise' ? 2 : name === 'Screen in the frame' || name === 'Hue' ? 0 : 1)
  /** What neither the plan nor the frame has is left out; a meaning is said once, not for each trace. */
  const rows = $derived(
    (compared?.rows ?? [])
      .filter((row) => row.planned !== null || row.measured !== null)
      .map((row, i, all) => ({ ...row, says: row.means !== all[i + 1]?.means ? row.means : '' })),
  )
  const TERMS: Record<string, string> = {
    'Screen, luma': 'luma',
    'Screen, key channel': 'key channel',
    'Band, p1 to p99': 'band',
    'Spill on skin': 'spill',
    'Spill on the edge': 'spill',
  }
</script>

<table class="mt-1 w-full">
  <thead>
    <tr class="label-text text-right"><th class="text-left font-normal">Reading</th><th class="font-normal">planned</th><th class="font-normal">measured</th><th class="font-normal">difference</th></tr>
  </thead>
  <tbody>
    {#each rows as row (row.name)}
      {@const places = digits(row.name)}
      <tr class="text-right" class:border-b={!row.says} class:border-line={!row.says}>
        <td class="py-1 text-left">{#if TERMS[row.name]}<Term term={TERMS[row.name]}>{row.name}</Term>{:else}{row.name}{/if}</td>
        <td class="text-quiet">{plain(row.planned, places)}</td>
        <td class="font-semibold">{plain(row.measured, places)}</td>
        <td class:text-primary={row.means !== ''} title="Agrees within {plain(row.agree_within, 1)} {row.unit}">{row.difference === null ? '' : signed(row.difference, places)} {row.unit}</td>
      </tr>
      {#if row.says}
        <tr class="border-b border-line"><td colspan="4" class="pb-1 text-primary first-letter:uppercase">{row.says}.</td></tr>
      {/if}
    {/each}
    {#if (r.clipped_percent ?? 0) > 0}
      <tr class="border-b border-line text-right text-primary"><td class="py-1 text-left">Clipped</td><td></td><td class="font-semibold">{plain(r.clipped_percent, 1)}</td><td>%</td></tr>
    {/if}
  </tbody>
</table>
{#if r.edge_contact}
  <p class="mt-1 text-primary">
    {#if r.edge_contact_screen.length}The subject leaves the screen: {r.edge_contact_screen.join(', ')}.{/if}
    {#if r.edge_contact_frame.length}It touches the frame: {r.edge_contact_frame.join(', ')}.{/if}
  </p>
{/if}
{#if compared}
  <p class="label-text mt-1">Planned: what the plan's own picture reads, all of its screen, without noise; the plan's numbers judge the part that is needed. It leaves out: {compared.not_computed.join('; ')}.</p>
{/if}
