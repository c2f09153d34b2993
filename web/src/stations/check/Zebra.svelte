<script lang="ts">
  /** Stripes over everything whose luma is above a level; the picture's own pixels are looked at. */
  let { source, above }: { source: string; above: number } = $props()
  let canvas = $state<HTMLCanvasElement>()
  let pixels = $state.raw<ImageData | null>(null)
  $effect(() => {
    const image = new Image()
    image.onload = () => {
      const scale = Math.min(1, 960 / image.naturalWidth)
      const sheet = document.createElement('canvas')
      sheet.width = Math.round(image.naturalWidth * scale)
      sheet.height = Math.round(image.naturalHeight * scale)
      const context = sheet.getContext('2d', { willReadFrequently: true })!
      context.drawImage(image, 0, 0, sheet.width, sheet.height)
      pixels = context.getImageData(0, 0, sheet.width, sheet.height)
    }
    image.src = source
  })
  $effect(() => {
    if (!canvas || !pixels) return
    const { width, height, data } = pixels
    canvas.width = width
    canvas.height = height
    const limit = above * 2.55
    const out = new ImageData(width, height)
    for (let i = 0, p = 0; i < data.length; i += 4, p++) {
      if (0.2126 * data[i] + 0.7152 * data[i + 1] + 0.0722 * data[i + 2] < limit) continue
      const stripe = ((p % width) + Math.floor(p / width)) % 10 < 5
      out.data[i] = out.data[i + 1] = out.data[i + 2] = stripe ? 20 : 235
      out.data[i + 3] = 200
    }
    canvas.getContext('2d')!.putImageData(out, 0, 0)
  })
</script>

<canvas bind:this={canvas} class="absolute inset-0 h-full w-full" aria-label="Zebra above {above} %"></canvas>
