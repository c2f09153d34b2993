<script lang="ts">
  /** What hanging this screen takes: counts, weights, minutes, people, cautions. */
  import NumberField from '../../parts/NumberField.svelte'
  import { session } from '../../lib/session.svelte'
  import type { Plan, ScreenAdvice } from '../../lib/types'
  let { plan, sheet, bag }: { plan: Plan; sheet: ScreenAdvice['sheet']; bag: number } = $props()

  const rows = $derived([
    ['Clamps', sheet.clamps ? String(sheet.clamps) : '–', 'one every 0.3 m of edge'],
    ['Weights on the lower edge', sheet.edge_weights ? String(sheet.edge_weights) : '–', 'one every 0.8 m'],
    ['Stands', sheet.stands ? String(sheet.stands) : '–', ''],
    [
      'Ballast on each',
      sheet.stands ? `${sheet.ballast_kg.toFixed(0)} kg, ${sheet.bags_per_stand} bags of ${bag.toFixed(0)} kg` : '–',
      `against ${sheet.moment_nm.toFixed(0)} N m, half as much again`,
    ],
    [
      'Steaming',
      sheet.steaming_min ? `${sheet.steaming_min.toFixed(0)} min` : '–',
      `${sheet.area_m2.toFixed(1)} m² of ${plan.screen.material}`,
    ],
    ['People', String(sheet.people), ''],
  ])
</script>

<h2 class="mt-3 font-semibold">Rigging sheet</h2>
<div class="max-w-64">
  <NumberField
    label={plan.room.kind === 'exterior' ? 'Wind' : 'Air of a fan'}
    unit="m/s"
    digits={1}
    step={1}
    field="room.wind_ms"
    value={plan.room.wind_ms}
    onchange={(value) => session.change([{ path: 'room.wind_ms', value }])}
  />
</div>
<dl>
  {#each rows as [name, value, note] (name)}
    <div class="flex items-baseline gap-3 border-t border-line py-1">
      <dt class="w-44 text-quiet">{name}</dt>
      <dd class="font-semibold">{value}</dd>
      <dd class="label-text flex-1 text-right">{note}</dd>
    </div>
  {/each}
</dl>
{#if sheet.cautions.length}
  <ul class="mt-1 list-inside list-disc">
    {#each sheet.cautions as caution (caution.says)}<li>{caution.says}</li>{/each}
  </ul>
  <p class="label-text">Usual cautions; local codes and licensed people come first.</p>
{/if}
