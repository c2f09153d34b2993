<script lang="ts">
  /** Readings in two columns with their difference; what it means stands under the row, once. */
  import Words from '../../parts/Words.svelte'
  import { plain, signed } from '../../lib/units'
  type Row = {
    name: string
    unit: string
    from: number | null
    to: number | null
    difference: number | null
    means: string
    within?: number
  }
  let { heads, rows, clipped = 0 }: { heads: [string, string, string, string]; rows: Row[]; clipped?: number } = $props()

  const DIGITS: Record<string, number> = { Noise: 2, 'Screen in the frame': 0, 'Colour of the light': 0 }
  /** What neither side has is left out, and so is clipping that would read as 0.0: too much of it is told by the verdict.
   *  A meaning that the next row repeats is left to that one. */
  const shown = $derived(
    rows
      .filter((row) => row.from !== null || row.to !== null || row.difference !== null)
      .map((row, i, all) => ({ ...row, says: row.means !== all[i + 1]?.means ? row.means : '', digits: DIGITS[row.name] ?? 1 })),
  )
</script>

<table class="table table-xs mt-1">
  <thead>
    <tr class="label-text text-right"
      >{#each heads as head, i (i)}<th class="font-normal" class:text-left={i === 0}>{head}</th>{/each}</tr
    >
  </thead>
  <tbody>
    {#each shown as row (row.name)}
      <tr class="text-right" class:border-b={!row.says} class:border-line={!row.says}>
        <td class="py-1 text-left"><Words text={row.name} /></td>
        <td class="text-quiet">{plain(row.from, row.digits)}</td>
        <td class="font-semibold">{plain(row.to, row.digits)}</td>
        <td
          class:text-primary={row.means !== ''}
          title={row.within === undefined ? undefined : `Agrees within ${plain(row.within, 1)} ${row.unit}`}
          >{row.difference === null ? '' : signed(row.difference, row.digits)} {row.unit}</td
        >
      </tr>
      {#if row.says}
        <tr class="border-b border-line"><td colspan="4" class="pb-1 text-primary first-letter:uppercase">{row.says}.</td></tr>
      {/if}
    {/each}
    {#if clipped >= 0.05}
      <tr class="border-b border-line text-right"
        ><td class="py-1 text-left">Clipped</td><td></td><td class="font-semibold">{plain(clipped, 1)}</td><td>%</td></tr
      >
    {/if}
  </tbody>
</table>
