<script lang="ts">
  /** The deviation of the screen from its mean as colours. */
  import { deviationInk } from '../../lib/deviation'
  import type { Frame } from '../../lib/types'
  let { frame, reach }: { frame: Frame; reach: number } = $props()
  let canvas = $state<HTMLCanvasElement>()
  $effect(() => {
    const values = frame.deviation?.values
    const context = canvas?.getContext('2d')
    if (!values || !context || !canvas) return
    const image = new ImageData(values[0].length, values.length)
    const pixels = new Uint32Array(image.data.buffer)
    values.forEach((row, y) => row.forEach((value, x) => value !== null && (pixels[y * row.length + x] = deviationInk(value, reach))))
    canvas.width = image.width
    canvas.height = image.height
    context.putImageData(image, 0, 0)
  })
</script>

<canvas bind:this={canvas} class="absolute inset-0 h-full w-full" aria-label="Deviation of the screen from its mean"></canvas>
