<script lang="ts">
  /** The dimension lines between section and floor: screen to mark, mark to camera. */
  import { prefs } from '../lib/prefs.svelte'
  import type { Sheet } from '../lib/sheet'
  import type { Plan } from '../lib/types'
  import { showLength } from '../lib/units'
  let { plan, sheet }: { plan: Plan; sheet: Sheet } = $props()

  const stops = $derived([0, ...(plan.subject ? [plan.subject.z] : []), plan.camera.z].sort((a, b) => a - b))
  const spans = $derived(stops.slice(1).map((to, i) => ({ from: stops[i], to })))
</script>

{#each spans as { from, to } (from)}
  {@const a = sheet.z(from)}
  {@const b = sheet.z(to)}
  <path class="hair" d="M{a} {sheet.strip}H{b}M{a} {sheet.strip - 5}v10M{b} {sheet.strip - 5}v10" />
  <path class="drawn" d="M{a - 3} {sheet.strip + 3}l6 -6M{b - 3} {sheet.strip + 3}l6 -6" />
  {#if b - a > 40}
    <text class="strong" x={(a + b) / 2} y={sheet.strip - 5} text-anchor="middle">{showLength(to - from, prefs.length)}</text>
  {/if}
{/each}
{#each stops as at (at)}
  <line class="hair" x1={sheet.z(at)} x2={sheet.z(at)} y1={sheet.y(0)} y2={sheet.x(sheet.extent.x1)} stroke-dasharray="2 3" />
{/each}
