import { describe, expect, it } from 'vitest'
import { fillCells, type Lattice } from './cells'

/** A lattice of cells as a homography throws it: wide in front, narrow behind. */
const leaning = (rows: number, columns: number): Lattice => {
  const places = (f: (u: number, v: number) => number) =>
    Array.from({ length: rows + 1 }, (_, r) => Array.from({ length: columns + 1 }, (_, c) => f(c / columns, r / rows)))
  return {
    x: places((u, v) => 5.3 + (60 * u + 7 * v) / (1 + 0.4 * v)),
    y: places((u, v) => 3.7 + (30 * v + 4 * u) / (1 + 0.4 * v)),
  }
}
const area = (at: Lattice) => {
  const ring = [
    [0, 0],
    [0, at.x[0].length - 1],
    [at.x.length - 1, at.x[0].length - 1],
    [at.x.length - 1, 0],
  ].map(([r, c]) => [at.x[r][c], at.y[r][c]])
  return Math.abs(ring.reduce((sum, [x, y], i) => sum + x * ring[(i + 1) % 4][1] - ring[(i + 1) % 4][0] * y, 0)) / 2
}

describe('cells over a picture', () => {
  it('fills the pixels whose middle is inside', () => {
    const pixels = new Uint32Array(4 * 3)
    fillCells(pixels, 4, { x: [[0.6, 3.4], [0.6, 3.4]], y: [[1.2, 1.2], [2.6, 2.6]] }, () => 7) // prettier-ignore
    expect([...pixels]).toEqual([0, 0, 0, 0, 0, 7, 7, 0, 0, 7, 7, 0])
  })
  it('leaves no seam between neighbours and covers what the surface covers', () => {
    const at = leaning(9, 13)
    const whole = new Uint32Array(80 * 50)
    fillCells(whole, 80, { x: [[at.x[0][0], at.x[0][13]], [at.x[9][0], at.x[9][13]]], y: [[at.y[0][0], at.y[0][13]], [at.y[9][0], at.y[9][13]]] }, () => 1) // prettier-ignore
    const cells = new Uint32Array(80 * 50)
    fillCells(cells, 80, at, () => 1)
    expect([...cells]).toEqual([...whole])
    expect(cells.reduce((sum, one) => sum + one, 0) / area(at)).toBeCloseTo(1, 1)
  })
  it('gives each cell its own colour, and none to what lies outside the picture', () => {
    const pixels = new Uint32Array(6 * 2)
    const row = [-3, 2, 4, 1e9]
    fillCells(pixels, 6, { x: [row, row], y: [row.map(() => -5), row.map(() => 1)] }, (_, c) => c + 1)
    expect([...pixels]).toEqual([1, 1, 2, 2, 3, 3, 0, 0, 0, 0, 0, 0])
  })
  it('draws nothing of a cell that is nowhere', () => {
    const pixels = new Uint32Array(4)
    fillCells(pixels, 2, { x: [[NaN, 1], [0, 1]], y: [[NaN, 0], [NaN, 2]] }, () => 1) // prettier-ignore
    expect([...pixels]).toEqual([0, 0, 0, 0])
  })
})
