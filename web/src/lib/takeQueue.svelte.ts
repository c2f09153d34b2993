/** Takes that the server has not got yet: kept in the browser, sent as soon as it is there, each once by its key. */
import { ApiError } from './api'
import { logTake, type Take, type Takes } from './productionApi'

const PLACE = 'ausblick.takes'
const AGAIN = 4000
type Waiting = { production: number; take: Take }

function stored(): Waiting[] {
  try {
    const read = JSON.parse(localStorage.getItem(PLACE) ?? '[]')
    return Array.isArray(read) ? read : []
  } catch {
    return []
  }
}

export class TakeQueue {
  waiting = $state.raw<Waiting[]>(stored())
  /** What the server could not take, in its words; such a take stays here until somebody mends or drops it. */
  refused = $state('')
  private sending = false
  private timer: ReturnType<typeof setTimeout> | undefined
  private turn: Promise<unknown> = Promise.resolve()
  private hear: (takes: Takes, production: number) => void = () => {}

  /** Called with the server's list after each take that has arrived. */
  listen(hear: (takes: Takes, production: number) => void) {
    this.hear = hear
    void this.send()
    const online = () => void this.send()
    window.addEventListener('online', online)
    return () => window.removeEventListener('online', online)
  }

  /** In the browser first, so that nothing is lost; then to the server. */
  log(production: number, take: Take) {
    this.put([...this.waiting.filter((one) => one.take.key !== take.key), { production, take }])
    void this.send()
  }

  drop(key: string) {
    this.put(this.waiting.filter((one) => one.take.key !== key))
    this.refused = ''
  }

  /** One question at a time, in the order asked: each answer is the whole list, and an older one would bring back what is gone. */
  inTurn<T>(ask: () => Promise<T>): Promise<T> {
    const mine = this.turn.then(ask)
    this.turn = mine.catch(() => null)
    return mine
  }

  private put(waiting: Waiting[]) {
    this.waiting = waiting
    localStorage.setItem(PLACE, JSON.stringify(waiting))
  }

  private async send() {
    if (this.sending) return
    this.sending = true
    clearTimeout(this.timer)
    // What was refused goes to the end; once all that wait were, nothing is sent until one of them is dropped.
    let refusals = 0
    while (refusals < this.waiting.length) {
      const first = this.waiting[0]
      try {
        const takes = await this.inTurn(() => logTake(first.production, first.take))
        // What was changed again meanwhile is sent again.
        this.put(this.waiting.filter((one) => one !== first))
        if (!refusals) this.refused = ''
        this.hear(takes, first.production)
      } catch (err) {
        if (err instanceof ApiError && (err.status === 422 || err.status === 404)) {
          this.refused = err.message
          this.put([...this.waiting.filter((one) => one !== first), first])
          refusals += 1
        } else {
          this.timer = setTimeout(() => void this.send(), AGAIN)
          break
        }
      }
    }
    this.sending = false
  }
}

export const takeQueue = new TakeQueue()
export const freshKey = () => crypto.getRandomValues(new Uint32Array(4)).reduce((text, n) => text + n.toString(36).padStart(7, '0'), 't')
