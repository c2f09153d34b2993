import { describe, expect, it } from 'vitest'
import { fromAbove, fromTheSide, moved } from './projection'
import type { Sheet } from './sheet'

const sheet: Sheet = {
  width: 800,
  height: 600,
  scale: 50,
  z: (z) => 40 + 50 * z,
  y: (y) => 300 - 50 * y,
  x: (x) => 450 - 50 * x,
  strip: 320,
  extent: { z0: 0, z1: 8, x0: -3, x1: 3, top: 4 },
}
const above = fromAbove(sheet)
const side = fromTheSide(sheet)

describe('a projection', () => {
  it('shows one place in both drawings under one z', () => {
    expect(above.at([1, 2, 3])).toEqual([190, 400])
    expect(side.at([1, 2, 3])).toEqual([190, 200])
  })
  it('moves what its drawing shows and leaves the third coordinate as it was', () => {
    expect(moved(above, [1, 2.005, 3], { dx: 0.5, dy: -0.25 })).toEqual([0.75, 2.005, 3.5])
    expect(moved(side, [1.005, 2, 3], { dx: 0.5, dy: -0.25 })).toEqual([1.005, 1.75, 3.5])
  })
  it('keeps things above the floor', () => {
    expect(moved(side, [0, 0.3, 3], { dx: 0, dy: -1 })[1]).toBe(0)
    expect(moved(above, [0, -0.3, 3], { dx: 0, dy: -1 })[1]).toBe(-0.3)
  })
  it('puts the ends of the needed part on the floor, not under it', () => {
    expect(side.ends([-1, -0.4, 1, 2.2])).toEqual([
      [0, 0, 0],
      [0, 2.2, 0],
    ])
    expect(above.ends([-1, -0.4, 1, 2.2])).toEqual([
      [-1, 0, 0],
      [1, 0, 0],
    ])
  })
})
