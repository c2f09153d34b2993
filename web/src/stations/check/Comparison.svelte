<script lang="ts">
  /** Planned beside measured, by the same ruler. */
  import DifferenceTable from './DifferenceTable.svelte'
  import type { Comparison, Frame } from '../../lib/types'
  let { frame, compared }: { frame: Frame; compared: Comparison | null } = $props()

  const r = $derived(frame.reading)
  const rows = $derived((compared?.rows ?? []).map((row) => ({ ...row, from: row.planned, to: row.measured, within: row.agree_within })))
</script>

<DifferenceTable heads={['Reading', 'planned', 'measured', 'difference']} {rows} clipped={r.clipped_percent ?? 0} />
{#if r.edge_contact}
  <p class="mt-1 text-primary">
    {#if r.edge_contact_screen.length}The subject leaves the screen: {r.edge_contact_screen.join(', ')}.{/if}
    {#if r.edge_contact_frame.length}It touches the frame: {r.edge_contact_frame.join(', ')}.{/if}
  </p>
{/if}
{#if r.things_at_edge.length}<p class="mt-1">A thing at the edge, not the subject: {r.things_at_edge.join(', ')}.</p>{/if}
{#if r.marks.length}<p class="mt-1">
    {r.marks.length === 1 ? 'One mark' : `${r.marks.length} marks`} on the screen, kept out of its evenness.
  </p>{/if}
{#if compared}
  <p class="label-text mt-1">
    Planned: what the plan's own picture reads, all of its screen, without noise; the plan's numbers judge the part that is needed. It
    leaves out: {compared.not_computed.join('; ')}.
  </p>
{/if}
