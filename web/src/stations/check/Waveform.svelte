<script lang="ts">
  /** The waveform in luma or the key channel, with the wanted band drawn on it. */
  import { scaleLinear } from 'd3-scale'
  import Term from '../../parts/Term.svelte'
  import { prefs } from '../../lib/prefs.svelte'
  import type { Comparison, Frame } from '../../lib/types'
  import { drawGlow, inkOf } from './glow'
  let { frame, compared }: { frame: Pick<Frame, 'scopes' | 'reading'>; compared: Comparison | null } = $props()

  let canvas = $state<HTMLCanvasElement>()
  let trace = $state<'luma' | 'key' | 'parade'>('luma')
  let parts = $state<HTMLCanvasElement[]>([])
  const TRACES = { luma: 'luma', key: 'key channel', parade: 'R G B' } as const
  const NEXT = { luma: 'key', key: 'parade', parade: 'luma' } as const
  const INKS: [number, number, number][] = [
    [240, 130, 120],
    [130, 220, 140],
    [130, 160, 250],
  ]
  const s = $derived(frame.scopes)
  const H = 152
  /** The lowest 5 px are left free for the label of 0. */
  const y = $derived(scaleLinear([0, s.top], [H - 5, 0]))
  $effect(() => {
    if (trace === 'parade') s.parade.forEach((part, i) => parts[i] && drawGlow(parts[i], part, s.wave_columns, s.wave_rows, INKS[i]))
    else if (canvas) drawGlow(canvas, trace === 'luma' ? s.waveform : s.waveform_key, s.wave_columns, s.wave_rows, inkOf(prefs.theme))
  })
  const target = $derived(compared && trace !== 'parade' && (compared.trace === 'luma') === (trace === 'luma') ? compared : null)
  const level = $derived(trace === 'luma' ? frame.reading.level_luma : frame.reading.level_key_channel)
</script>

<figure>
  <figcaption class="flex items-center justify-between pb-1">
    <Term term="waveform">Waveform</Term>
    <button type="button" class="label-text cursor-pointer underline hover:text-ink" onclick={() => (trace = NEXT[trace])}
      >{TRACES[trace]}</button
    >
  </figcaption>
  <div class="relative h-[152px] bg-base-300">
    {#if trace === 'parade'}
      <div
        class="absolute top-0 right-0 left-7 flex h-[147px] w-[calc(100%-1.75rem)] gap-px"
        role="img"
        aria-label="Waveforms of red, green and blue"
      >
        {#each [0, 1, 2] as i (i)}<canvas bind:this={parts[i]} class="h-full min-w-0 flex-1"></canvas>{/each}
      </div>
    {:else}<canvas
        bind:this={canvas}
        class="absolute top-0 right-0 left-7 h-[147px] w-[calc(100%-1.75rem)]"
        aria-label="Waveform, screen between {level?.p1.toFixed(0) ?? '–'} and {level?.p99.toFixed(0) ?? '–'} %"
      ></canvas>{/if}
    <svg class="absolute inset-0 h-full w-full" aria-hidden="true">
      {#each [0, 20, 40, 60, 80, 100] as mark (mark)}
        <line x1="28" x2="100%" y1={y(mark)} y2={y(mark)} class="hair" stroke-dasharray={mark % 100 ? '2 4' : 'none'} />
        <text x="24" y={y(mark) + 3.5} text-anchor="end">{mark}</text>
      {/each}
      {#if target}
        <rect
          x="28"
          width="100%"
          y={y(target.target_high)}
          height={y(target.target_low) - y(target.target_high)}
          fill="var(--color-primary)"
          fill-opacity="0.16"
          stroke="var(--color-primary)"
          stroke-dasharray="4 3"
        />
      {/if}
    </svg>
  </div>
</figure>
