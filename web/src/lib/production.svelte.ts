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
  /** What the server has; what hands have changed since is laid over it, so that an undo or another page's change that
   * is on its way is the ground of what is changed meanwhile. */
  private ground: api.Production | null = null
  private waiting: Change[][] = []

  /** Show a production; one that is open already stays, with what waits to be saved, and is asked for anew. */
  async show(id: number) {
    if (id === this.id) this.heard()
    else await this.open(id)
  }

  async open(id: number) {
    // What waits to be saved belongs to the one that was open, and so does what is changed until then.
    for (let queue; queue !== this.queue;) await (queue = this.queue)
    this.id = id
    this.document = null
    this.state = null
    this.waiting = []
    await this.run(() => api.getProduction(id))
  }

  /** Another page changed it. */
  heard() {
    this.then(() => api.getProduction(this.id))
  }

  change(changes: Change[]) {
    if (!this.document) return
    this.waiting.push(changes)
    this.document = laidOver(this.document, [changes])
    this.then(() => this.save(changes))
  }

  /** Sent is all that waits up to these changes: what a failing network has kept here goes along. */
  private async save(changes: Change[]) {
    const sent = this.waiting.slice(0, this.waiting.indexOf(changes) + 1)
    const drop = () => (this.waiting = this.waiting.filter((one) => !sent.includes(one)))
    try {
      const stored = await api.saveProduction(this.id, this.revision, laidOver(this.ground as api.Production, sent))
      drop()
      return stored
    } catch (err) {
      if (isRefused(err)) drop()
      throw err
    }
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
    this.unsaved += 1
    this.queue = this.queue.then(() => this.run(work)).finally(() => (this.unsaved -= 1))
  }

  private async run(work: () => Promise<api.StoredProduction>) {
    try {
      const stored = await work()
      // Another one was opened while this one was asked for.
      if (stored.id !== this.id) return
      this.take(stored)
      this.canUndo = stored.can_undo
      this.canRedo = stored.can_redo
      this.error = ''
      // What hands have changed meanwhile is saved next, and judged then.
      if (!this.waiting.length) void this.judge()
    } catch (err) {
      this.error = (err as Error).message
      // What was refused is not shown as if it were kept.
      if (isRefused(err) && this.document) {
        const stored = await api.getProduction(this.id).catch(() => null)
        if (stored) this.take(stored)
      }
    }
  }

  private take(stored: api.StoredProduction) {
    this.revision = stored.revision
    this.ground = stored.production
    this.document = laidOver(stored.production, this.waiting)
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

const laidOver = (production: api.Production, changes: Change[][]) =>
  changes.reduce((found, some) => applyChanges(found as never, some) as never as api.Production, production)
const isRefused = (err: unknown) => err instanceof ApiError && (err.status === 409 || err.status === 422)

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
