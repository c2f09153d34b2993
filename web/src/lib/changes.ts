/** Changes to a plan by path, as the server understands them; here only to draw without waiting. */
import type { Change, Plan } from './types'

const steps = (path: string) => path.match(/[^.[\]]+/g) ?? []

export function readPath(plan: Plan, path: string): unknown {
  return steps(path).reduce<unknown>((holder, step) => (holder as Record<string, unknown>)?.[step], plan)
}

/** A new plan with the changes made; parts that don't change are shared. */
export function applyChanges(plan: Plan, changes: Change[]): Plan {
  return changes.reduce((now, change) => known(set(now, steps(change.path), change.value) as Plan, change.path), plan)
}

/** A fact of the plate that is set is no longer unknown. */
function known(plan: Plan, path: string): Plan {
  const [part, fact] = path.split('.')
  const unknown = plan.plate?.unknown ?? []
  if (part !== 'plate' || !unknown.some((name) => name === fact)) return plan
  return { ...plan, plate: { ...plan.plate, unknown: unknown.filter((name) => name !== fact) } }
}

function set(holder: unknown, [step, ...rest]: string[], value: unknown): unknown {
  if (step === undefined) return value
  if (Array.isArray(holder)) return holder.map((item, i) => (String(i) === step ? set(item, rest, value) : item))
  const object = holder as Record<string, unknown>
  return { ...object, [step]: set(object[step], rest, value) }
}

const MOVES: (keyof Plan)[] = ['camera', 'subject', 'companions']

/** Are two plans alike but for people and camera? Then the light of one is known from a picture of the other. */
export function sameSet(one: Plan, other: Plan): boolean {
  const parts = (Object.keys(other) as (keyof Plan)[]).filter((part) => !MOVES.includes(part))
  return parts.every((part) => one[part] === other[part] || JSON.stringify(one[part]) === JSON.stringify(other[part]))
}

export const round = (value: number, digits = 2) => Number(value.toFixed(digits))
