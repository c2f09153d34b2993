<script lang="ts">
  /** The deviation of the screen from its mean as colours. */
  import { deviationColour } from '../../lib/deviation'
  import type { Frame } from '../../lib/types'
  let { frame, reach }: { frame: Frame; reach: number } = $props()
  let canvas = $state<HTMLCanvasElement>()
  $effect(() => {
    const values = frame.deviation?.values
    const context = canvas?.getContext('2d')
    if (!values || !context || !canvas) return
    canvas.width = values[0].length
    canvas.height = values.length
    const image = context.createImageData(canvas.width, canvas.height)
    values.flat().forEach((value, i) => {
      if (value !== null) image.data.set([...deviationColour(value, reach), 255], i * 4)
    })
    context.putImageData(image, 0, 0)
  })
</script>

<canvas bind:this={canvas} class="absolute inset-0 h-full w-full" aria-label="Deviation of the screen from its mean"></canvas>
