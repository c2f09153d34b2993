/** Five minutes with a set-up: each step asks for something real, sees that it was done, and goes on by itself. */
import { session } from './session.svelte'
import type { StationId } from './stations'
import type { Plan } from './types'

type Seen = { before: Plan; now: Plan; station: StationId | null; tried: boolean }
type Step = { say: string; done: (seen: Seen) => boolean }

const moved = (seen: Seen) => seen.before.subject?.z !== seen.now.subject?.z || seen.before.subject?.x !== seen.now.subject?.x

export const STEPS: Step[] = [
  {
    say: 'Pull the mark, where the figure stands, half a metre toward the camera. The numbers on the line above follow.',
    done: moved,
  },
  {
    say: 'Findings stand worst first. Open one and press Try: what it would change is drawn dashed, with its numbers below.',
    done: (seen) => seen.tried,
  },
  { say: 'Keep it (K) or drop it (Esc). Whatever you do, Undo leads back.', done: (seen) => !seen.tried },
  {
    say: 'Press 4, Screen light. Switch one lamp off and see what it gave to the screen and to the face.',
    done: (seen) => seen.station === 'light' && seen.now.lights.some((lamp, i) => lamp.on !== seen.before.lights[i]?.on),
  },
  { say: 'Undo that. Then press 7: the test key draws what the camera would record, and keys it.', done: (seen) => seen.station === 'key' },
  {
    say: 'Press 8, Check: a frame from the set beside the plan, what is wrong in it, and which lamp it is.',
    done: (seen) => seen.station === 'check',
  },
  { say: 'Take along, above, makes a sheet to print. That is all it takes: New set-up begins with your own room.', done: () => false },
]

class Tour {
  /** Which step; null while nobody is on it. */
  at = $state<number | null>(null)
  private before: Plan | null = null

  begin() {
    this.at = 0
    this.before = null
  }

  end() {
    this.at = null
  }

  /** What can be seen of the set-up now: on to the next step where this one is done. */
  look(station: StationId | null) {
    const now = session.plan
    if (this.at === null || !now) return
    this.before ??= now
    if (!STEPS[this.at].done({ before: this.before, now, station, tried: session.ghost !== null })) return
    this.at += 1
    this.before = now
  }
}

export const tour = new Tour()
