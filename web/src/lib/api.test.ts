import { expect, expectTypeOf, test } from 'vitest'
import { getSetup, listFrames, type ApiError } from './api'
import type { FrameSummary, Setup } from './types'

test('an answer has the type that the server promises, and no other', () => {
  expectTypeOf(getSetup).returns.resolves.toEqualTypeOf<Setup>()
  expectTypeOf(listFrames).returns.resolves.toEqualTypeOf<FrameSummary[]>()
  // @ts-expect-error a set-up is no number: the compiler refuses what the description does not promise
  const refused = (): Promise<number> => getSetup(1)
  expect(refused).toBeTypeOf('function')
})

test('a server that is away is told as such', async () => {
  const away = (await getSetup(1).catch((error: ApiError) => error)) as ApiError
  expect(away.status).toBe(0)
  expect(away.message).toContain('does not answer')
})
