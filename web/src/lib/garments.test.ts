import { expect, test } from 'vitest'
import { nextCovers } from './garments'

test('a second garment goes below the first, a third is a detail', () => {
  expect(nextCovers([])).toBe('body')
  expect(nextCovers([{ covers: 'body' }])).toBe('legs')
  expect(nextCovers([{ covers: 'top' }, { covers: 'legs' }])).toBe('detail')
})
