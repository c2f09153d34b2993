<script lang="ts">
  /** The vectorscope: hue as direction, saturation as distance; the screen's mean marked. */
  import Term from '../../parts/Term.svelte'
  import { prefs } from '../../lib/prefs.svelte'
  import type { Frame } from '../../lib/types'
  import { drawGlow, inkOf } from './glow'
  let { frame, target = null }: { frame: Pick<Frame, 'scopes' | 'reading'>; target?: number | null } = $props()

  let canvas = $state<HTMLCanvasElement>()
  const s = $derived(frame.scopes)
  const SIDE = 152
  /** Cb to the right, Cr up; the inner half of the reach is shown, where pictures live. */
  const half = SIDE / 2
  const at = $derived.by(() => {
    const { hue_deg, saturation } = frame.reading
    if (hue_deg === null || saturation === null) return null
    const angle = (hue_deg * Math.PI) / 180
    const k = (half * saturation) / s.vector_reach
    return [half + k * Math.cos(angle), half - k * Math.sin(angle)]
  })
  $effect(() => {
    if (canvas) drawGlow(canvas, s.vectorscope, s.vector_side, s.vector_side, inkOf(prefs.theme))
  })
</script>

<figure>
  <figcaption class="pb-1"><Term term="vectorscope">Vectorscope</Term></figcaption>
  <div class="relative h-[152px] w-[152px] overflow-hidden bg-base-300">
    <canvas
      bind:this={canvas}
      class="absolute inset-0 h-full w-full"
      aria-label="Vectorscope, screen at {frame.reading.hue_deg?.toFixed(0) ?? '–'} degrees"
    ></canvas>
    <svg class="absolute inset-0" width={SIDE} height={SIDE} aria-hidden="true">
      <path d="M0 {half}H{SIDE}M{half} 0V{SIDE}" class="hair" />
      {#each [0.2, 0.4] as ring (ring)}<circle
          cx={half}
          cy={half}
          r={(half * ring) / s.vector_reach}
          class="hair"
          stroke-dasharray="2 4"
        />{/each}
      {#if target !== null}
        {@const angle = (target * Math.PI) / 180}
        <line
          x1={half + 0.55 * half * Math.cos(angle)}
          y1={half - 0.55 * half * Math.sin(angle)}
          x2={half + 0.95 * half * Math.cos(angle)}
          y2={half - 0.95 * half * Math.sin(angle)}
          stroke="white"
          stroke-width="3"
          stroke-opacity="0.7"
        />
      {/if}
      {#if at}
        <line x1={half} y1={half} x2={at[0]} y2={at[1]} stroke="var(--color-primary)" stroke-dasharray="3 3" />
        <circle cx={at[0]} cy={at[1]} r="5" fill="none" stroke="var(--color-primary)" stroke-width="1.5" />
      {/if}
      <text x={SIDE - 4} y={half - 4} text-anchor="end">Cb</text>
      <text x={half + 4} y="11">Cr</text>
    </svg>
  </div>
</figure>
