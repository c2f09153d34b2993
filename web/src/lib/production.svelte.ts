/** The open production: its document, what the server says of it, and saving as it is changed. */
import { ApiError } from './api'
import { applyChanges } from './changes'
import * as api from './productionApi'
import type { Change } from './types'

export class OpenProduction {
  id = $state(0)
  document = $state.raw<api.Production | null>(null)
  state = $state.raw<api.ProductionState | null>(null)
  canUndo = $state(false)
  canRedo = $state(false)
  busy = $state(false)
  /** What is on its way to the server or waits to be sent. */
  unsaved = $state(0)
  error = $state('')
  /** Of which day the rest is projected, and from when (minutes since midnight). */
  asked = $state.raw<{ day?: number; now?: number }>({})

  private revision = 0
  /** One save after the other, so that quick hands never meet their own revision. */
  private queue = Promise.resolve()
  private newest = 0
  /** How many changes hands have made: an answer to an older one is not what stands here. */
  private made = 0

  /** Show a production; one that is open already stays, with what waits to be saved, and is asked for anew. */
  async show(id: number) {
    if (id === this.id) this.heard()
    else await this.open(id)
  }

  async open(id: number) {
    this.id = id
    this.document = null
    this.state = null
    await this.run(() => api.getProduction(id), this.made)
  }

  /** Another page changed it. */
  heard() {
    this.then(() => api.getProduction(this.id))
  }

  change(changes: Change[]) {
    if (!this.document) return
    this.document = applyChanges(this.document as never, changes) as never as api.Production
    const now = this.document
    this.made += 1
    this.then(() => api.saveProduction(this.id, this.revision, now))
  }

  undo() {
    this.then(() => api.undoProduction(this.id))
  }

  redo() {
    this.then(() => api.redoProduction(this.id))
  }

  look(asked: { day?: number; now?: number }) {
    this.asked = asked
    void this.judge()
  }

  private then(work: () => Promise<api.StoredProduction>) {
    const own = this.made
    this.unsaved += 1
    this.queue = this.queue.then(() => this.run(work, own)).finally(() => (this.unsaved -= 1))
  }

  private async run(work: () => Promise<api.StoredProduction>, own: number) {
    try {
      const stored = await work()
      this.revision = stored.revision
      this.canUndo = stored.can_undo
      this.canRedo = stored.can_redo
      this.error = ''
      // What hands have changed meanwhile stands, and is saved next.
      if (own !== this.made) return
      this.document = stored.production
      void this.judge()
    } catch (err) {
      this.error = (err as Error).message
      // What was refused is not shown as if it were kept.
      if (err instanceof ApiError && (err.status === 409 || err.status === 422) && this.document) {
        const stored = await api.getProduction(this.id).catch(() => null)
        if (stored) {
          this.revision = stored.revision
          this.document = stored.production
        }
      }
    }
  }

  private async judge() {
    const own = ++this.newest
    this.busy = true
    try {
      const state = await api.productionState(this.id, this.asked)
      if (own === this.newest) this.state = state
    } catch (err) {
      if (own === this.newest) this.error = (err as Error).message
    }
    if (own === this.newest) this.busy = false
  }
}

/** One for all pages of a production, so that going from one to the next overtakes no save. */
export const openProduction = new OpenProduction()

/** "08:30" of minutes since midnight, and back. */
export const clock = (minutes: number) => {
  const whole = Math.round(minutes) % 1440
  return `${String(Math.floor(whole / 60)).padStart(2, '0')}:${String(whole % 60).padStart(2, '0')}`
}
export const minutesOf = (time: string) => Number(time.slice(0, 2)) * 60 + Number(time.slice(3, 5))
export const daysOf = (production: api.Production) =>
  production.days.length
    ? production.days
    : [{ date: production.date, call: production.call, end: production.end, breaks: production.breaks }]
export const dayPath = (production: api.Production, day: number, field: string) =>
  production.days.length ? `days[${day}].${field}` : field
export const nameOf = (production: api.Production, person: string | null) =>
  production.people.find((one) => one.id === person)?.name || person || ''
/** An id that nothing has yet. */
export function freshId(prefix: string, taken: { id: string }[]) {
  let n = taken.length + 1
  while (taken.some((one) => one.id === `${prefix}${n}`)) n += 1
  return `${prefix}${n}`
}
