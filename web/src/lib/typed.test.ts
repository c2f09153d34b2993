import { describe, expect, it, test } from 'vitest'
import { readLength, readNumber, readShutter } from './typed'
import { showLength } from './units'

describe('numbers', () => {
  test.each([
    ['2,75', '', 2.75],
    ['−.5', '', -0.5],
    ['f/2.8', '', 2.8],
    ['F 4', '', 4],
    ['ISO 800', '', 800],
    ['60 %', '%', 60],
    ['5600K', 'K', 5600],
    ['½', '', 0.5],
    ['1 1/2', '', 1.5],
  ])('%s', (text, unit, value) => expect(readNumber(text, unit)).toBeCloseTo(value))
  test.each(['', '1e9', 'abc', '2 m', '1/0x', '--2'])('%s is none', (text) => expect(readNumber(text, 'K')).toBeNaN())
})

describe('lengths', () => {
  test.each([
    ['275 cm', 'm', 2.75],
    ['2750mm', 'ft', 2.75],
    ['2.75', 'm', 2.75],
    ['2.4 m', 'ft', 2.4],
    [`8'6"`, 'm', 2.5908],
    ['8′ 6½″', 'm', 2.6035],
    ['8’6”', 'm', 2.5908],
    ['8 ft 6 in', 'm', 2.5908],
    ['8 6', 'ft', 2.5908],
    ['102"', 'm', 2.5908],
    [`102''`, 'm', 2.5908],
    ['8½', 'ft', 2.5908],
    [`-1' 6"`, 'ft', -0.4572],
    ['10', 'ft', 3.048],
  ] as const)('%s, with %s chosen', (text, unit, metres) => expect(readLength(text, unit)).toBeCloseTo(metres, 4))
  test.each(['abc', '8 6', '', '3 kg'])('%s is no length in metres', (text) => expect(readLength(text, 'm')).toBeNaN())
  it('is read as it is shown', () => {
    for (const metres of [0, 0.31, 1.72, 9.5, -2.03])
      expect(Math.abs(readLength(showLength(metres, 'ft'), 'ft') - metres)).toBeLessThan(0.0032)
  })
})

describe('shutters', () => {
  test.each(['50', '1/50', '1/50 s', '0.02 s', '1/50s'])('%s is a fiftieth', (text) => expect(readShutter(text)).toBeCloseTo(50))
})
