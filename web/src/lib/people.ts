/** Everybody in the picture: the subject, then companions, with where each stands in the document. */
import type { Companion, Plan, Subject, Thing } from './types'

export interface Person {
  /** Where the document has it, and what it is on the drawing. */
  path: string
  thing: Thing
  name: string
  subject: Subject
  /** Its place among the companions; null for the subject. */
  index: number | null
}

export function peopleOf(plan: Plan): Person[] {
  if (!plan.subject) return []
  const first: Person = { path: 'subject', thing: 'subject', name: 'Subject', subject: plan.subject, index: null }
  return [first, ...plan.companions.map((one, i) => companionOf(one, i))]
}

export const companionOf = (one: Companion, index: number): Person => ({
  path: `companions[${index}]`,
  thing: `person:${one.id}`,
  name: one.name,
  subject: one,
  index,
})

const MOST = 4
const BESIDE = 0.8

/** One more, beside whoever stands furthest to the right, or to the left where the wall is near; null where no more may be. */
export function oneMore(plan: Plan): Companion | null {
  const people = peopleOf(plan)
  if (!plan.subject || people.length > MOST) return null
  const xs = people.map((person) => person.subject.x)
  const right = Math.max(...xs) + BESIDE
  const fits = plan.room.kind === 'exterior' || right < plan.room.x_max - BESIDE / 2
  const taken = new Set(plan.companions.map((one) => one.id))
  const id = [1, 2, 3, 4].map((n) => `p${n}`).find((name) => !taken.has(name))!
  const x = Number((fits ? right : Math.min(...xs) - BESIDE).toFixed(2))
  return { ...plan.subject, x, id, name: people.length > 1 ? `person ${people.length + 1}` : 'second person', wardrobe: [], props: [] }
}
