<script lang="ts">
  /** The waveform in luma or the key channel, with the wanted band drawn on it. */
  import Term from '../../parts/Term.svelte'
  import { prefs } from '../../lib/prefs.svelte'
  import type { Comparison, Frame } from '../../lib/types'
  import { drawGlow, inkOf } from './glow'
  let { frame, compared }: { frame: Frame; compared: Comparison | null } = $props()

  let canvas = $state<HTMLCanvasElement>()
  let trace = $state<'luma' | 'key'>('luma')
  const s = $derived(frame.scopes)
  const H = 152
  /** The lowest 5 px are left free for the label of 0. */
  const y = $derived((percent: number) => (1 - percent / s.top) * (H - 5))
  $effect(() => {
    if (canvas) drawGlow(canvas, trace === 'luma' ? s.waveform : s.waveform_key, s.wave_columns, s.wave_rows, inkOf(prefs.theme))
  })
  const target = $derived(compared && (compared.trace === 'luma') === (trace === 'luma') ? compared : null)
  const level = $derived(trace === 'luma' ? frame.reading.level_luma : frame.reading.level_key_channel)
</script>

<figure>
  <figcaption class="flex items-center justify-between pb-1">
    <Term term="waveform">Waveform</Term>
    <button type="button" class="label-text cursor-pointer underline hover:text-ink" onclick={() => (trace = trace === 'luma' ? 'key' : 'luma')}>{trace === 'luma' ? 'luma' : 'key channel'}</button>
  </figcaption>
  <div class="relative h-[152px] bg-base-300">
    <canvas bind:this={canvas} class="absolute top-0 right-0 left-7 h-[147px] w-[calc(100%-1.75rem)]" aria-label="Waveform, screen between {level?.p1.toFixed(0) ?? '–'} and {level?.p99.toFixed(0) ?? '–'} %"></canvas>
    <svg class="absolute inset-0 h-full w-full" aria-hidden="true">
      {#each [0, 20, 40, 60, 80, 100] as mark (mark)}
        <line x1="28" x2="100%" y1={y(mark)} y2={y(mark)} class="hair" stroke-dasharray={mark % 100 ? '2 4' : 'none'} />
        <text x="24" y={y(mark) + 3.5} text-anchor="end">{mark}</text>
      {/each}
      {#if target}
        <rect x="28" width="100%" y={y(target.target_high)} height={y(target.target_low) - y(target.target_high)} fill="var(--color-primary)" fill-opacity="0.16" stroke="var(--color-primary)" stroke-dasharray="4 3" />
      {/if}
    </svg>
  </div>
</figure>
