import { describe, expect, it } from 'vitest'
import { apart, type Named } from './lampNames'

const name = (x: number, y: number, text = 'soft box, key'): Named => ({ x, y, anchor: 'start', text })

describe('names of lamps', () => {
  it('stay where they are while they have room', () => {
    const names = [name(0, 10), name(0, 40), name(300, 10)]
    expect(apart(names)).toEqual(names)
  })

  it('stand one under the other where they would lie on each other', () => {
    const lines = apart([name(0, 10), name(8, 12), name(4, 15)]).map((one) => one.y)
    expect(lines[0]).toBe(10)
    expect(lines[1] - lines[0]).toBe(12)
    expect(lines[2] - lines[1]).toBe(12)
  })
})
