<script lang="ts">
  /** A photo of what is worn: a click gives the mean colour of a small area. The photo stays in the browser. */
  import { meanColour } from '../lib/colour'
  let { opened, picked }: { opened: (name: string) => void; picked: (rgb: number[]) => void } = $props()

  const AREA = 7
  let canvas = $state<HTMLCanvasElement>()
  let photo = $state('')

  function open(event: Event) {
    const file = (event.currentTarget as HTMLInputElement).files?.[0]
    if (!file) return
    const image = new Image()
    image.onload = () => {
      const scale = Math.min(1, 520 / image.width)
      if (!canvas) return
      canvas.width = image.width * scale
      canvas.height = image.height * scale
      canvas.getContext('2d', { willReadFrequently: true })?.drawImage(image, 0, 0, canvas.width, canvas.height)
      URL.revokeObjectURL(image.src)
    }
    image.src = URL.createObjectURL(file)
    photo = file.name
    opened(file.name)
  }
  function pick(event: MouseEvent) {
    const context = canvas?.getContext('2d')
    if (!canvas || !context) return
    const box = canvas.getBoundingClientRect()
    const x = Math.round(((event.clientX - box.left) / box.width) * canvas.width - AREA / 2)
    const y = Math.round(((event.clientY - box.top) / box.height) * canvas.height - AREA / 2)
    picked(meanColour(context.getImageData(Math.max(0, x), Math.max(0, y), AREA, AREA).data))
  }
</script>

<label class="btn btn-sm"
  >Pick colours from a photo<input type="file" class="sr-only" accept="image/png,image/jpeg" onchange={open} /></label
>
<!-- The colour fields beside it are the keyboard's way to the same colours. -->
<!-- svelte-ignore a11y_click_events_have_key_events, a11y_no_noninteractive_element_interactions -->
<canvas
  bind:this={canvas}
  class="mt-2 max-w-full cursor-crosshair"
  class:hidden={!photo}
  aria-label="Photo {photo}: click to take the mean colour of a small area"
  onclick={pick}
></canvas>
