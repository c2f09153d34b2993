import { expect, test } from 'vitest'
import { oneMore, peopleOf } from './people'
import type { Companion, Plan } from './types'

const plan = (room: object, companions: object[] = []) =>
  ({ room: { kind: 'interior', x_max: 3.7, ...room }, subject: { x: 0.2, z: 2.4, wardrobe: ['coat'] }, companions }) as unknown as Plan

test('one more stands beside the others, with a name and an id of its own and nothing worn', () => {
  const first = oneMore(plan({}))!
  expect([first.x, first.z, first.id, first.name, first.wardrobe]).toEqual([1, 2.4, 'p1', 'second person', []])
  const second = oneMore(plan({}, [first]))!
  expect([second.x, second.id, second.name]).toEqual([1.8, 'p2', 'person 3'])
})

test('where the wall is near it stands on the other side, and a fifth companion there is not', () => {
  expect(oneMore(plan({ x_max: 1.2 }))!.x).toBe(-0.6)
  const four = [1, 2, 3, 4].map((n) => ({ id: `p${n}`, x: n }) as unknown as Companion)
  expect(oneMore(plan({}, four))).toBeNull()
  expect(peopleOf(plan({}, four)).map((person) => person.path)).toEqual(['subject', ...four.map((_, i) => `companions[${i}]`)])
})
