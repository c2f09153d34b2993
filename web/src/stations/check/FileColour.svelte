<script lang="ts">
  /** How the file's colour was understood: what it said of itself, what had to be assumed, and what a person knows. */
  import Choice from '../../parts/Choice.svelte'
  import { readFrameAs, type Primaries, type Progress, type Transfer } from '../../lib/checkApi'
  import type { Frame } from '../../lib/types'
  let { frame, reread }: { frame: Frame; reread: (work: (progress: Progress) => Promise<Frame>) => Promise<void> } = $props()

  const reading = $derived(frame.reading)
  const said = $derived(frame.said ?? null)
  const usual = $derived(reading.primaries === '709' && ['709', 'sRGB'].includes(reading.transfer))
  const PRIMARIES: [string, string][] = [
    ['709', 'Rec.709'],
    ['2020', 'Rec.2020'],
    ['P3', 'P3'],
    ['601', 'Rec.601, 525 lines'],
    ['601-625', 'Rec.601, 625 lines'],
  ]
  const CURVES: [string, string][] = [
    ['709', 'Rec.709'],
    ['sRGB', 'sRGB'],
    ['HLG', 'HLG'],
    ['PQ', 'PQ'],
    ['linear', 'linear'],
    ['log', 'film log'],
  ]
  /** What was cancelled or refused is not so: the choices say again what the frame was read as. */
  let asked = $state(0)
  async function ask(primaries: string | null, transfer: string | null) {
    const before = frame
    await reread((progress) => readFrameAs(before, primaries as Primaries | null, transfer as Transfer | null, progress))
    if (frame === before) asked++
  }
</script>

{#if !usual}
  <p class="mt-2">
    Written in {PRIMARIES.find(([name]) => name === reading.primaries)?.[1] ?? reading.primaries} primaries, {reading.transfer}; read as the
    light it was.
  </p>
{/if}
{#if reading.assumed.length}<p class="label-text mt-2">Assumed: {reading.assumed.join(', ')}.</p>{/if}
<details class="mt-1">
  <summary class="label-text cursor-pointer">It is written otherwise</summary>
  {#key asked}
    <div class="mt-1 flex flex-col gap-1">
      <Choice
        label="Primaries"
        value={said?.primaries ?? ''}
        options={[['', 'as it says'], ...PRIMARIES]}
        onchange={(to) => ask(to || null, said?.transfer ?? null)}
      />
      <Choice
        label="Curve"
        value={said?.transfer ?? ''}
        options={[['', 'as it says'], ...CURVES]}
        onchange={(to) => ask(said?.primaries ?? null, to || null)}
      />
      {#if said}<button type="button" class="btn btn-sm self-start" onclick={() => ask(null, null)}>As the file says</button>{/if}
    </div>
  {/key}
</details>
