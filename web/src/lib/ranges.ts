/** Ranges of the plan's fields as the core has them. */
import { RANGES } from './facts.generated'

/** Lowest and highest of a number field; a path that the core does not know is a slip of ours. */
export function rangeOf(field: string): [number, number] {
  const found = RANGES[field]
  if (!found) throw new Error(`no number field ${field}`)
  return found
}
