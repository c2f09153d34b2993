<script lang="ts">
  /** Planned beside measured, the worst difference first in words. */
  import Term from '../../parts/Term.svelte'
  import { session } from '../../lib/session.svelte'
  import type { Comparison, Frame } from '../../lib/types'
  let { frame, compared }: { frame: Frame; compared: Comparison | null } = $props()

  const r = $derived(frame.reading)
  const n = (value: number | null | undefined, digits = 1) => (value == null ? '–' : value.toFixed(digits).replace('-', '−'))
  const signed = (value: number | null) => (value === null ? '' : `${value > 0 ? '+' : ''}${n(value)}`)
  const TERMS: Record<string, string> = { 'Screen, luma': 'luma', 'Screen, key channel': 'key channel' }
</script>

<table class="mt-1 w-full">
  <thead>
    <tr class="label-text text-right"><th class="text-left font-normal">Reading</th><th class="font-normal">planned</th><th class="font-normal">measured</th><th class="font-normal">difference</th></tr>
  </thead>
  <tbody>
    {#each compared?.rows ?? [] as row (row.name)}
      <tr class="border-b border-line text-right">
        <td class="py-1 text-left">{#if TERMS[row.name]}<Term term={TERMS[row.name]}>{row.name}</Term>{:else}{row.name}{/if}</td>
        <td class="text-quiet">{n(row.planned, row.name === 'Noise' ? 2 : 1)}</td>
        <td class="font-semibold">{n(row.measured, row.name === 'Noise' ? 2 : 1)}</td>
        <td class:text-primary={row.means !== ''}>{signed(row.difference)} {row.unit}</td>
      </tr>
    {/each}
    <tr class="border-b border-line text-right"><td class="py-1 text-left"><Term term="band">Band, p1 to p99</Term></td><td class="text-quiet">{n(session.evaluation?.check.screen?.band_percent)}</td><td class="font-semibold">{n(r.band_percent)}</td><td>%</td></tr>
    <tr class="border-b border-line text-right"><td class="py-1 text-left"><Term term="spill">Spill on the edge, on skin</Term></td><td></td><td class="font-semibold">{n(r.spill_edge_percent)}, {n(r.spill_skin_percent)}</td><td>%</td></tr>
    <tr class="border-b border-line text-right"><td class="py-1 text-left">Screen in the frame</td><td></td><td class="font-semibold">{n(r.screen_area_percent, 0)}</td><td>%</td></tr>
    <tr class="border-b border-line text-right"><td class="py-1 text-left">Saturation</td><td></td><td class="font-semibold">{n(r.saturation, 3)}</td><td></td></tr>
    {#if (r.clipped_percent ?? 0) > 0}
      <tr class="border-b border-line text-right text-primary"><td class="py-1 text-left">Clipped</td><td></td><td class="font-semibold">{n(r.clipped_percent)}</td><td>%</td></tr>
    {/if}
  </tbody>
</table>
{#if r.edge_contact}
  <p class="mt-1 text-primary">
    {#if r.edge_contact_screen.length}The subject leaves the screen: {r.edge_contact_screen.join(', ')}.{/if}
    {#if r.edge_contact_frame.length}It touches the frame: {r.edge_contact_frame.join(', ')}.{/if}
  </p>
{/if}
{#if compared}<p class="label-text mt-1">Planned numbers leave out: {compared.not_computed.join('; ')}.</p>{/if}
