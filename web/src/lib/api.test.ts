import { expect, expectTypeOf, test } from 'vitest'
import { getSetup, listFrames, saveBody, type ApiError } from './api'
import type { FrameSummary, Plan, Setup } from './types'

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

test('what was before goes with a save, unless a large table would make it more than the server takes', () => {
  const plan = (table: number) => ({ camera: { curve_table: '0'.repeat(table) } }) as unknown as Plan
  expect(saveBody(3, plan(10), plan(20)).was).toEqual(plan(20))
  const large = saveBody(3, plan(2_900_000), plan(2_900_000))
  expect([large.was, JSON.stringify(large).length < 6_000_000]).toEqual([null, true])
})
