<script lang="ts">
  /** How far each cell of the screen is from the wanted level, in the picture: right under any tilt and pan. */
  import { fillCells, type Lattice } from '../lib/cells'
  import { deviationInk } from '../lib/deviation'
  import type { Evaluation } from '../lib/types'
  let {
    map,
    project,
    offset,
    reach,
    width,
    height,
  }: {
    map: Evaluation['map']
    project: (x: number, y: number) => [number, number]
    offset: number
    reach: number
    width: number
    height: number
  } = $props()

  let canvas = $state<HTMLCanvasElement>()

  /** The wall's corners: its cells lie round places that are evenly apart. */
  function wallAt(scale: number): Lattice {
    const ends = (places: number[]) => {
      const half = (places[1] - places[0]) / 2
      return [...places.map((place) => place - half), places[places.length - 1] + half]
    }
    const across = ends(map.x)
    const corners = ends(map.y).map((y) => across.map((x) => project(x, y)))
    return { x: corners.map((row) => row.map(([u]) => u * scale)), y: corners.map((row) => row.map(([, v]) => v * scale)) }
  }

  $effect(() => {
    const context = canvas?.getContext('2d')
    const scale = window.devicePixelRatio || 1
    const [w, h] = [Math.round(width * scale), Math.round(height * scale)]
    if (!context || !canvas || w < 1 || h < 1) return
    const image = new ImageData(w, h)
    const pixels = new Uint32Array(image.data.buffer)
    fillCells(pixels, w, wallAt(scale), (row, column) => deviationInk(map.deviation[row][column] - offset, reach))
    for (const one of map.beside) {
      const at = { x: one.u.map((row) => row.map((u) => u * w)), y: one.v.map((row) => row.map((v) => v * h)) }
      fillCells(pixels, w, at, (row, column) => deviationInk(one.deviation[row][column] - offset, reach))
    }
    canvas.width = w
    canvas.height = h
    context.putImageData(image, 0, 0)
  })
</script>

<canvas bind:this={canvas} class="absolute inset-0 h-full w-full" aria-hidden="true"></canvas>
