/** Cells laid over a picture, each in one colour: thousands at every step of a drag, so that no path is drawn for any. */

/** Corners of rows × columns of cells, (rows + 1) × (columns + 1) of them, in pixels. */
export type Lattice = { x: number[][]; y: number[][] }

/** So near a seam a pixel is taken by both neighbours, and none is left out. */
const SEAM = 1e-6

/** Fills each cell's pixels, `width` to a row, with its colour: those whose middle lies inside its four straight sides. */
export function fillCells(pixels: Uint32Array, width: number, at: Lattice, colour: (row: number, column: number) => number) {
  const height = pixels.length / width
  for (let r = 0; r + 1 < at.x.length; r++)
    for (let c = 0; c + 1 < at.x[r].length; c++) {
      const x = [at.x[r][c], at.x[r][c + 1], at.x[r + 1][c + 1], at.x[r + 1][c]]
      const y = [at.y[r][c], at.y[r][c + 1], at.y[r + 1][c + 1], at.y[r + 1][c]]
      const first = Math.max(0, Math.ceil(Math.min(...y) - 0.5 - SEAM))
      const last = Math.min(height - 1, Math.floor(Math.max(...y) - 0.5 + SEAM))
      const ink = colour(r, c)
      for (let j = first; j <= last; j++) {
        const [from, to] = across(x, y, j + 0.5)
        const begin = Math.max(0, Math.ceil(from - 0.5 - SEAM))
        const end = Math.min(width - 1, Math.floor(to - 0.5 + SEAM))
        if (begin <= end) pixels.fill(ink, j * width + begin, j * width + end + 1)
      }
    }
}

/** Where a line at a height enters and leaves a cell. */
function across(x: number[], y: number[], at: number): [number, number] {
  let from = Infinity
  let to = -Infinity
  for (let a = 0; a < 4; a++) {
    const b = (a + 1) % 4
    if (y[a] < at === y[b] < at) continue
    const meets = x[a] + ((at - y[a]) / (y[b] - y[a])) * (x[b] - x[a])
    from = Math.min(from, meets)
    to = Math.max(to, meets)
  }
  return [from, to]
}
