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
    values.forEach((row, y) =>
      row.forEach((value, x) => {
        if (value === null) return
        context.fillStyle = deviationColour(value, reach)
        context.fillRect(x, y, 1, 1)
      }),
    )
  })
</script>

<canvas bind:this={canvas} class="absolute inset-0 h-full w-full" aria-label="Deviation of the screen from its mean"></canvas>
