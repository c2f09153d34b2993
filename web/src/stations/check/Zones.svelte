<script lang="ts">
  /** Three by three: measured mean of each zone, planned below it. */
  import type { Comparison, Frame } from '../../lib/types'
  let { frame, compared }: { frame: Frame; compared: Comparison | null } = $props()
  const n = (value: number | null | undefined) => (value == null ? '–' : value.toFixed(1))
  const AT = ['top', 'middle', 'bottom']
  const SIDE = ['left', 'centre', 'right']
</script>

{#if frame.reading.grid}
  <table class="table table-xs mt-3 table-fixed border-collapse text-center">
    <caption class="pb-1 text-left"
      >Nine zones of the frame, {compared?.trace === 'key-channel' ? 'key channel' : 'luma'}:
      <span class="text-quiet">measured, planned below</span></caption
    >
    <tbody>
      {#each frame.reading.grid as row, i (i)}
        <tr>
          {#each row as value, j (j)}
            <td
              class="border border-line py-1"
              aria-label="{AT[i]} {SIDE[j]}: measured {n(value)} %, planned {n(compared?.planned_grid[i]?.[j])} %"
            >
              <span class="block text-reading font-semibold">{n(value)}</span>
              <span class="label-text">{n(compared?.planned_grid[i]?.[j])}</span>
            </td>
          {/each}
        </tr>
      {/each}
    </tbody>
  </table>
{/if}
