import { describe, expect, it } from 'vitest'
import { plain, showLength, showLight, showValue, signed } from './units'

describe('units', () => {
  it('shows a true minus, a sign for differences, and neither on nothing', () => {
    expect(plain(-0.04, 1)).toBe('0.0')
    expect(plain(-1.25, 2)).toBe('−1.25')
    expect(plain(null, 1)).toBe('–')
    expect([signed(0.04, 1), signed(-0.04, 1), signed(0.06, 1), signed(-2, 0)]).toEqual(['0.0', '0.0', '+0.1', '−2'])
  })

  it('shows lengths and light in the chosen unit', () => {
    expect(showLength(2.4, 'm')).toBe('2.40 m')
    expect(showLength(2.4, 'ft')).toBe('7′ 10½″')
    expect(showLength(-0.5, 'ft')).toBe('−1′ 7¾″')
    expect(showLength(0.3047, 'ft')).toBe('1′ 0″')
    expect(showLength(0.3111, 'ft')).toBe('1′ 0¼″')
    expect(showLight(107.6391, 'fc')).toBe('10.0 fc')
    expect(showValue(null, 'm', 2, 'm', 'lx')).toBe('–')
    expect(showValue(-1.25, 'stops', 1, 'm', 'lx')).toBe('−1.3 stops')
  })
})
