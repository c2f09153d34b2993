<script module lang="ts">
  export type Tool = 'rectangle' | 'lasso' | 'corners' | 'pixels'
</script>

<script lang="ts">
  /** Drawing on the frame with finger, pen or mouse: a rectangle, a lasso, four corners, or one place. */
  import type { Corner } from '../../lib/types'
  let {
    tool,
    w,
    h,
    drawn,
    clicked,
    pixel,
  }: {
    tool: Tool
    w: number
    h: number
    drawn: (corners: Corner[]) => void
    clicked: (corners: Corner[]) => void
    pixel: (at: Corner) => void
  } = $props()

  let points = $state.raw<Corner[]>([])
  let from = $state.raw<Corner | null>(null)
  const at = (event: PointerEvent): Corner => {
    const box = (event.currentTarget as Element).getBoundingClientRect()
    const clamp = (x: number) => Math.max(0, Math.min(1, x))
    return [clamp((event.clientX - box.left) / box.width), clamp((event.clientY - box.top) / box.height)]
  }
  function down(event: PointerEvent) {
    const place = at(event)
    ;(event.currentTarget as Element).setPointerCapture(event.pointerId)
    if (tool === 'pixels') return pixel(place)
    if (tool === 'corners') {
      points = [...points, place]
      if (points.length === 4) {
        clicked(points)
        points = []
      }
      return
    }
    from = place
    points = [place]
  }
  function move(event: PointerEvent) {
    if (!from) return
    const [u, v] = at(event)
    points = tool === 'rectangle' ? [from, [u, from[1]], [u, v], [from[0], v]] : [...points, [u, v]]
  }
  function up() {
    if (!from) return
    from = null
    const every = Math.max(1, Math.ceil(points.length / 150))
    const kept = points.filter((_, i) => i % every === 0)
    points = []
    if (kept.length >= 3) drawn(kept)
  }
</script>

<svg
  class="absolute inset-0 cursor-crosshair touch-none"
  width={w}
  height={h}
  role="application"
  aria-label="Drawing on the frame"
  onpointerdown={down}
  onpointermove={move}
  onpointerup={up}
>
  <rect width={w} height={h} fill="transparent" />
  {#if points.length}
    <path
      d={points.map(([u, v], i) => `${i ? 'L' : 'M'}${u * w} ${v * h}`).join('') + (tool === 'corners' ? '' : 'Z')}
      fill="white"
      fill-opacity="0.1"
      stroke="black"
      stroke-width="3"
      stroke-opacity="0.6"
    />
    <path
      d={points.map(([u, v], i) => `${i ? 'L' : 'M'}${u * w} ${v * h}`).join('') + (tool === 'corners' ? '' : 'Z')}
      fill="none"
      stroke="white"
      stroke-width="1.3"
    />
    {#if tool === 'corners'}{#each points as [u, v], i (i)}<circle
          cx={u * w}
          cy={v * h}
          r="5"
          fill="none"
          stroke="white"
          stroke-width="1.5"
        />{/each}{/if}
  {/if}
</svg>
