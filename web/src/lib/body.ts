/** Where a place of the body is that is given as a share of stature: standing, or lowered onto a chair. */
import { HIPS, SEAT } from './facts.generated'
import type { Subject } from './types'

/** m above the floor. */
export function upOf(subject: Subject, share: number): number {
  const lowered = subject.posture === 'seated' ? Math.max(0, HIPS * subject.height - SEAT) : 0
  return share >= HIPS ? share * subject.height - lowered : (share / HIPS) * (HIPS * subject.height - lowered)
}
