<script lang="ts">
  /** Hot spots and shadows with their deltas, those that the plan has too quieter, and where the key was sampled. */
  import { signed } from '../../lib/units'
  type Spot = { x: number; y: number; w: number; h: number; delta_percent: number; word: string; planned: boolean }
  let { spots, sample, w, h }: { spots: Spot[]; sample: { x: number; y: number } | null; w: number; h: number } = $props()
  const told = (spot: Spot) => `${spot.word} ${signed(spot.delta_percent, 1)}${spot.planned ? ', as planned' : ''}`
</script>

<svg class="absolute inset-0" width={w} height={h} role="img" aria-label="{spots.length} spots found">
  {#each spots as spot, i (i)}
    <rect
      x={spot.x * w}
      y={spot.y * h}
      width={spot.w * w}
      height={spot.h * h}
      fill="none"
      stroke="black"
      stroke-opacity="0.6"
      stroke-width="3"
    />
    <rect
      x={spot.x * w}
      y={spot.y * h}
      width={spot.w * w}
      height={spot.h * h}
      fill="none"
      stroke="white"
      stroke-opacity={spot.planned ? 0.5 : 1}
      stroke-width="1.2"
      stroke-dasharray={spot.delta_percent < 0 ? '4 3' : 'none'}
    />
    {@const late = spot.x > 0.6}
    <text
      x={late ? Math.min(w - 3, (spot.x + spot.w) * w) : spot.x * w + 3}
      y={Math.max(11, spot.y * h - 4)}
      text-anchor={late ? 'end' : 'start'}
      class={spot.planned ? '' : 'strong'}
      paint-order="stroke"
      stroke="black"
      stroke-width="3"
      fill={spot.planned ? '#c8c8c8' : 'white'}
    >
      {told(spot)}
    </text>
  {/each}
  {#if sample}
    {@const [cx, cy] = [sample.x * w, sample.y * h]}
    <path d="M{cx - 9} {cy}h6M{cx + 3} {cy}h6M{cx} {cy - 9}v6M{cx} {cy + 3}v6" stroke="black" stroke-width="3.4" />
    <path d="M{cx - 9} {cy}h6M{cx + 3} {cy}h6M{cx} {cy - 9}v6M{cx} {cy + 3}v6" stroke="white" stroke-width="1.4" />
  {/if}
</svg>
