/** The open set-up: its plan, what the server says of it, saving, undo, and a remedy being tried. */
import { tick } from 'svelte'
import * as api from './api'
import { applyChanges } from './changes'
import { who } from './who.svelte'
import type { Attempt, Change, Conflict, Evaluation, Plan, Setup, Thing, TrackingMarks } from './types'

const SAVE_AFTER = 350
const RETRY_AFTER = 3000
const LONGEST_PICTURE = 1000
const LONGEST_GLIMPSE = 400

export type Ghost = { remedy: Attempt; plan: Plan; evaluation: Evaluation }

/** Until newer ones are found a finding keeps the remedies that it had, so that nothing jumps. */
function withRemediesOf(before: Evaluation | null, now: Evaluation): Evaluation {
  const old = new Map((before?.check.findings ?? []).map((finding) => [finding.id, finding.remedies]))
  const findings = now.check.findings.map((finding) => ({ ...finding, remedies: old.get(finding.id) ?? [] }))
  return { ...now, check: { ...now.check, findings } }
}

/** Waits for what is under way, but no longer than `most` ms. */
const soon = (what: Promise<unknown> | null, most: number) => what && Promise.race([what, new Promise((done) => setTimeout(done, most))])

export class Session {
  id = $state(0)
  revision = $state(0)
  plan = $state.raw<Plan | null>(null)
  evaluation = $state.raw<Evaluation | null>(null)
  ghost = $state.raw<Ghost | null>(null)
  selected = $state<Thing | null>(null)
  canUndo = $state(false)
  canRedo = $state(false)
  saving = $state<'saved' | 'waiting' | 'saving' | 'offline'>('saved')
  conflict = $state.raw<Conflict | null>(null)
  error = $state('')
  unknown = $state<string[]>([])
  /** Remedies of the findings: those of this plan, older ones while newer are looked for, or none could be asked for. */
  remediesAre = $state<'here' | 'coming' | 'missing'>('coming')
  /** Is a hand moving something? */
  moving = $state(false)
  /** The picture of the planned set that is being drawn: what takes longer waits for it. */
  drawing: Promise<unknown> | null = null
  /** The first sight of it, in light that is known: once the hand is off, numbers wait for that. */
  glimpse: Promise<unknown> | null = null
  /** A plate's picture is open and needs the room of the frame. */
  plateOpen = $state(false)
  /** Tracking marks that are being planned, for the frame to draw. */
  marks = $state.raw<TrackingMarks | null>(null)

  private busy = false
  private numbers: AbortController | null = null
  /** The plan whose numbers are being asked for. */
  private asked: Plan | null = null
  private remedies: AbortController | null = null
  private wanted: { remedies: boolean } | null = null
  private timer: ReturnType<typeof setTimeout> | undefined
  private sending: Promise<void> | null = null
  private changed = 0
  /** The plan that the evaluation is of. */
  private evaluated: Plan | null = null
  /** The plan as it was last known to be stored: what this page's changes are made on. */
  private stored: Plan | null = null

  async open(id: number) {
    this.selected = null
    this.ghost = null
    this.conflict = null
    this.evaluation = null
    this.plan = null
    this.error = ''
    await this.guard(async () => this.take(await api.getSetup(id)))
  }

  /** Make changes to the plan; `settled` when the hand is off, so that it is saved and remedies come. */
  change(changes: Change[], settled = true) {
    if (!this.plan || this.conflict) return
    if (!who.changes) {
      this.error = 'This device was let in to look along: what stands here is changed on another.'
      return
    }
    this.plan = applyChanges(this.plan, changes)
    this.moving = !settled
    this.ghost = null
    this.changed += 1
    this.saving = 'waiting'
    this.refresh(settled)
    clearTimeout(this.timer)
    if (settled) this.timer = setTimeout(() => void this.save(), SAVE_AFTER)
  }

  /** The hand is off after a drag: save and ask for remedies. */
  settle() {
    this.moving = false
    if (this.saving === 'waiting') this.change([])
  }

  /** Save what waits to be saved, and wait for what is on its way; safe to call at any time. */
  async save() {
    // What comes next, an undo above all, must not overtake a save that the server has not seen yet.
    while (this.sending) await this.sending
    clearTimeout(this.timer)
    if (!this.plan || this.saving === 'saved' || this.conflict) return
    this.sending = this.send(this.plan).finally(() => (this.sending = null))
    await this.sending
  }

  private async send(sent: Plan) {
    const at = this.changed
    this.saving = 'saving'
    try {
      const answer = await api.saveSetup(this.id, this.revision, sent, this.stored ?? sent)
      if ('kept' in answer) {
        this.conflict = answer
        this.saving = 'saved'
        return
      }
      this.error = ''
      const others = answer.revision !== this.revision + 1
      if (others && at === this.changed) return this.take(answer)
      this.stored = sent
      // With others' changes in it, the next save is still one on the old revision: the server puts them together.
      if (!others) this.revision = answer.revision
      this.canUndo = answer.can_undo
      this.canRedo = answer.can_redo
      this.saving = at === this.changed ? 'saved' : 'waiting'
      if (this.saving === 'waiting') this.timer = setTimeout(() => void this.save(), SAVE_AFTER)
    } catch (err) {
      this.error = (err as Error).message
      this.saving = 'waiting'
      if (err instanceof api.ApiError && err.status === 0) {
        this.saving = 'offline'
        this.timer = setTimeout(() => ((this.saving = 'waiting'), void this.save()), RETRY_AFTER)
      } else {
        await this.reload()
      }
    }
  }

  async undo() {
    await this.save()
    if (this.conflict) return
    await this.guard(async () => this.take(await api.undoSetup(this.id)))
  }

  async redo() {
    await this.save()
    if (this.conflict) return
    await this.guard(async () => this.take(await api.redoSetup(this.id)))
  }

  async openVersion(version: number) {
    await this.save()
    await this.guard(async () => this.take(await api.openVersion(this.id, version)))
  }

  /** After a conflict: theirs is taken, or mine is put on top of theirs. Both stay findable. */
  async resolve(whose: 'theirs' | 'mine') {
    const conflict = this.conflict
    if (!conflict) return
    this.conflict = null
    if (whose === 'theirs') return this.take(conflict.current)
    await this.guard(async () => this.take(await api.openVersion(this.id, conflict.kept)))
  }

  /** Draw a remedy beside the plan, with its numbers; nothing is changed yet. */
  async attempt(remedy: Attempt) {
    const plan = this.plan
    if (!plan) return
    await this.guard(async () => {
      const evaluation = await api.evaluate(plan, false, remedy.changes)
      if (plan === this.plan) this.ghost = { remedy, plan: applyChanges(plan, remedy.changes), evaluation }
    })
  }

  /** A lamp, a cloth or a companion is taken away; undo brings it back. Screen, camera and subject stay. */
  removeSelected() {
    const [kind, id] = (this.selected ?? '').split(':')
    const path = ({ light: 'lights', flag: 'flags', person: 'companions' } as const)[kind]
    if (!path || !this.plan) return
    this.selected = null
    this.change([{ path, value: this.plan[path].filter((one) => one.id !== id) }])
  }

  keepGhost() {
    const ghost = this.ghost
    if (ghost) this.change(ghost.remedy.changes)
  }

  dropGhost() {
    this.ghost = null
  }

  /** Somebody else changed this set-up: theirs is shown, unless hands are at work here. */
  async heard() {
    if (this.saving !== 'saved' || this.conflict) return
    const now = await api.getSetup(this.id).catch(() => null)
    // What was saved here while this was asked for is newer than the answer.
    if (now && now.id === this.id && now.revision > this.revision && this.saving === 'saved') this.take(now)
  }

  /** What set-ups are judged by has changed elsewhere. */
  judgeAgain() {
    if (this.plan) this.refresh(true)
  }

  private async reload() {
    await this.guard(async () => this.take(await api.getSetup(this.id)), true)
  }

  private take(setup: Setup) {
    clearTimeout(this.timer)
    this.id = setup.id
    this.revision = setup.revision
    this.plan = setup.plan
    this.stored = setup.plan
    this.canUndo = setup.can_undo
    this.canRedo = setup.can_redo
    this.unknown = setup.unknown_fields
    this.saving = 'saved'
    this.ghost = null
    const [kind, id] = (this.selected ?? '').split(':')
    const gone = (things: { id: string }[]) => !things.some((one) => one.id === id)
    if ((kind === 'light' && gone(setup.plan.lights)) || (kind === 'person' && gone(setup.plan.companions))) this.selected = null
    this.refresh(true)
  }

  /** One evaluation at a time; of those asked for meanwhile only the last is made, and no hand waits for remedies. */
  private refresh(remedies: boolean) {
    this.wanted = { remedies }
    this.remedies?.abort()
    // Along the way each number counts; where the hand came to rest only the last does.
    if (remedies && this.asked !== this.plan) this.numbers?.abort()
    if (!this.busy) void this.evaluateWanted()
  }

  private async evaluateWanted() {
    this.busy = true
    while (this.wanted && this.plan) {
      const { remedies } = this.wanted
      const plan: Plan = this.plan
      this.wanted = null
      try {
        if (this.evaluated !== plan) {
          // Of a set-up that is being opened nothing stands yet: its numbers are asked for before the page is drawn.
          if (this.evaluation && !this.moving) await this.glimpsed()
          if (this.wanted) continue
          this.numbers = new AbortController()
          this.asked = plan
          const quick = await api.evaluate(plan, false, [], this.numbers.signal)
          if (this.plan === plan || this.wanted) {
            this.evaluation = withRemediesOf(this.evaluation, quick)
            this.evaluated = plan
            this.remediesAre = 'coming'
          }
        }
        if (remedies && this.plan === plan && !this.wanted) await this.drawn()
        if (remedies && this.plan === plan && !this.wanted) {
          this.remedies = new AbortController()
          const full = await api.evaluate(plan, true, [], this.remedies.signal)
          if (this.plan === plan) {
            this.evaluation = full
            this.remediesAre = 'here'
          }
        }
      } catch (err) {
        if (!this.wanted) {
          this.error = (err as Error).message
          this.remediesAre = 'missing'
        }
      }
    }
    this.busy = false
  }

  /** The picture's first sight is there, or takes too long to be waited for. */
  private async glimpsed() {
    // Whoever shows the picture asks for it once the page has taken in the plan.
    await tick()
    await soon(this.glimpse, LONGEST_GLIMPSE)
    this.glimpse = null
  }

  /** The picture is there, or takes too long to be waited for, and is waited for no more: what costs more is asked
   * for after it. */
  async drawn() {
    const drawing = this.drawing
    if (!drawing) return
    await soon(drawing, LONGEST_PICTURE)
    if (this.drawing === drawing) this.drawing = null
  }

  private async guard(work: () => Promise<void>, keepError = false) {
    try {
      await work()
      if (!keepError) this.error = ''
    } catch (err) {
      this.error = (err as Error).message
    }
  }
}

export const session = new Session()
