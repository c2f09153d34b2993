/** What every mark on the drawing needs: the plan, what is known of it, and the hands that move it. */
import type { Change, Evaluation, Plan, Thing } from './types'

export interface Board {
  plan: Plan
  evaluation: Evaluation | null
  selected: Thing | null
  select: (thing: Thing) => void
  change: (changes: Change[]) => void
  settle: () => void
}
