/** The same cases as tests/core/test_sentences.py: here and there the same words. */
import { describe, expect, test } from 'vitest'
import cases from '../../../tests/say_cases.json'
import { say } from './say'
import type { Sentence } from './types'

describe('a sentence', () => {
  test.each(cases)('$metric', ({ sentence, metric, feet }) => {
    expect(say(sentence as unknown as Sentence, { length: 'm', light: 'lx' })).toBe(metric)
    expect(say(sentence as unknown as Sentence, { length: 'ft', light: 'fc' })).toBe(feet)
  })

  test('of a server that is newer than the page says what to do', () => {
    expect(say({ id: 'not/known/yet', parameters: {} }, { length: 'm', light: 'lx' })).toContain('load this page again')
  })
})
