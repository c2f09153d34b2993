<script lang="ts">
  /** The room in words: how large, what its walls, ceiling and floor are. */
  import AskNumber from '../parts/AskNumber.svelte'
  import Chips from '../parts/Chips.svelte'
  import { USUAL_ROOM } from '../lib/facts.generated'
  import { prefs } from '../lib/prefs.svelte'
  import { showLength } from '../lib/units'
  import type { Said, Tone } from '../lib/startApi'
  let { room, onchange }: { room: Said['room']; onchange: (room: Said['room']) => void } = $props()

  const TONES: [Tone, string][] = [
    ['white', 'white'],
    ['grey', 'grey'],
    ['dark', 'dark'],
    ['draped', 'draped'],
  ]
  const shown = (metres: number) => showLength(metres, prefs.length).replace(/ m$/, '')
  const usual = $derived({ length: shown(USUAL_ROOM.length), width: shown(USUAL_ROOM.width), height: shown(USUAL_ROOM.height) })
  const set = (fields: Partial<Said['room']>) => onchange({ ...room, ...fields })
</script>

<div class="flex flex-wrap items-end gap-2">
  <AskNumber label="Length" unit="m" usual={usual.length} low={1} high={60} value={room.length} onchange={(length) => set({ length })} />
  <AskNumber label="Width" unit="m" usual={usual.width} low={1} high={60} value={room.width} onchange={(width) => set({ width })} />
  <AskNumber label="Height" unit="m" usual={usual.height} low={1.8} high={30} value={room.height} onchange={(height) => set({ height })} />
  <button type="button" class="btn btn-sm" aria-pressed={room.outdoors} onclick={() => set({ outdoors: !room.outdoors })}>outdoors</button>
</div>
{#if !room.outdoors}
  <div class="mt-1.5 flex flex-col gap-1">
    <Chips label="Walls" value={room.walls} options={TONES} onchange={(walls) => set({ walls })} />
    <Chips label="Ceiling" value={room.ceiling} options={TONES} onchange={(ceiling) => set({ ceiling })} />
    <Chips label="Floor" value={room.floor} options={TONES} onchange={(floor) => set({ floor })} />
  </div>
{/if}
