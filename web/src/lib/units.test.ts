import { describe, expect, it } from 'vitest'
import { plain, readLength, readNumber, showLength, showLight, showValue, signed } from './units'

describe('units', () => {
  it('shows a true minus, a sign for differences, and neither on nothing', () => {
    expect(plain(-0.04, 1)).toBe('0.0')
    expect(plain(-1.25, 2)).toBe('−1.25')
    expect(plain(null, 1)).toBe('–')
    expect([signed(0.04, 1), signed(-0.04, 1), signed(0.06, 1), signed(-2, 0)]).toEqual(['0.0', '0.0', '+0.1', '−2'])
  })

  it('shows lengths and light in the chosen unit', () => {
    expect(showLength(2.4, 'm')).toBe('2.40 m')
    expect(showLength(2.4, 'ft')).toBe('7′ 10″')
    expect(showLength(-0.5, 'ft')).toBe('−1′ 8″')
    expect(showLength(0.3047, 'ft')).toBe('1′ 0″')
    expect(showLight(107.6391, 'fc')).toBe('10.0 fc')
    expect(showValue(null, 'm', 2, 'm', 'lx')).toBe('–')
    expect(showValue(-1.25, 'stops', 1, 'm', 'lx')).toBe('−1.3 stops')
  })
  it('reads comma and point, feet and inches', () => {
    expect(readNumber('2,75')).toBe(2.75)
    expect(readNumber('−.5')).toBe(-0.5)
    expect(readNumber('1e9')).toBeNaN()
    expect(readNumber('')).toBeNaN()
    expect(readLength('2.4 m', 'ft')).toBeCloseTo(2.4)
    expect(readLength(`7' 10"`, 'm')).toBeCloseTo(2.3876, 3)
    expect(readLength('10', 'ft')).toBeCloseTo(3.048, 3)
    expect(readLength('abc', 'm')).toBeNaN()
  })
  it('reads what it shows', () => {
    for (const metres of [0, 0.31, 1.72, 9.5]) expect(readLength(showLength(metres, 'ft'), 'ft')).toBeCloseTo(metres, 1)
  })
})
