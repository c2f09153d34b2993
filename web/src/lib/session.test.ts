import { beforeEach, describe, expect, test, vi } from 'vitest'
import * as api from './api'
import { Session } from './session.svelte'
import type { Conflict, Evaluation, Plan, Setup } from './types'

vi.mock('./api', async (original) => ({
  ...(await original<typeof api>()),
  getSetup: vi.fn(),
  saveSetup: vi.fn(),
  undoSetup: vi.fn(),
  openVersion: vi.fn(),
  evaluate: vi.fn(),
}))

const plan = (title: string) => ({ title, lights: [], camera: { iso: 400 } }) as unknown as Plan
const setup = (revision: number, title = 'vault') =>
  ({ id: 1, revision, plan: plan(title), can_undo: true, can_redo: false, unknown_fields: [] }) as unknown as Setup
const evaluation = (of: Plan) => ({ of: of.title, check: { findings: [] } }) as unknown as Evaluation
const said = (session: Session) => (session.evaluation as unknown as { of: string } | null)?.of
const title = (value: string) => [{ path: 'title', value }]

let session: Session
beforeEach(async () => {
  vi.useFakeTimers()
  vi.resetAllMocks()
  vi.mocked(api.getSetup).mockResolvedValue(setup(3))
  vi.mocked(api.evaluate).mockImplementation(async (of) => evaluation(of))
  session = new Session()
  await session.open(1)
})

describe('when the hand is off', () => {
  test('remedies wait for the picture that is being drawn, and the numbers of the same plan are not asked for again', async () => {
    let there = () => {}
    session.change(title('moved'), false)
    await vi.advanceTimersByTimeAsync(0)
    session.drawing = new Promise<void>((done) => (there = done))
    vi.mocked(api.evaluate).mockClear()
    session.settle()
    await vi.advanceTimersByTimeAsync(300)
    expect(session.moving).toBe(false)
    expect(api.evaluate).not.toHaveBeenCalled()
    there()
    await vi.advanceTimersByTimeAsync(0)
    expect(vi.mocked(api.evaluate).mock.calls.map((call) => [call[0].title, call[1]])).toEqual([['moved', true]])
  })

  test('a picture that does not come keeps them no longer than a second', async () => {
    vi.mocked(api.saveSetup).mockResolvedValue(setup(4))
    session.drawing = new Promise(() => {})
    session.change(title('moved'))
    await vi.advanceTimersByTimeAsync(900)
    expect(vi.mocked(api.evaluate).mock.lastCall?.[1]).toBe(false)
    await vi.advanceTimersByTimeAsync(200)
    expect(vi.mocked(api.evaluate).mock.lastCall?.[1]).toBe(true)
    session.change(title('again'))
    await vi.advanceTimersByTimeAsync(0)
    expect(vi.mocked(api.evaluate).mock.lastCall?.[1]).toBe(true)
  })
})

describe('with the picture on show', () => {
  const asked = () => vi.mocked(api.evaluate).mock.calls.map((call) => [call[0].title, call[1]])

  test('numbers come after its first sight once the hand is off, and along the way at once', async () => {
    vi.mocked(api.evaluate).mockClear()
    let seen = () => {}
    session.glimpse = new Promise<void>((done) => (seen = done))
    session.change(title('on the way'), false)
    await vi.advanceTimersByTimeAsync(0)
    expect(asked()).toEqual([['on the way', false]])
    session.change(title('there'))
    await vi.advanceTimersByTimeAsync(300)
    expect(asked()).toHaveLength(1)
    seen()
    await vi.advanceTimersByTimeAsync(0)
    expect(asked().slice(1)).toEqual([
      ['there', false],
      ['there', true],
    ])
  })

  test('a first sight that does not come keeps them less than half a second', async () => {
    vi.mocked(api.saveSetup).mockResolvedValue(setup(4))
    vi.mocked(api.evaluate).mockClear()
    session.glimpse = new Promise(() => {})
    session.change(title('moved'))
    await vi.advanceTimersByTimeAsync(450)
    expect(asked()[0]).toEqual(['moved', false])
  })
})

test('numbers of where a hand no longer is are called off once it rests', async () => {
  const signals: AbortSignal[] = []
  vi.mocked(api.evaluate).mockImplementation(
    (of, _remedies, _changes, signal) =>
      new Promise((done, failed) => {
        if (signal) signals.push(signal)
        signal?.addEventListener('abort', () => failed(new Error('called off')))
        if (of.title === 'there') done(evaluation(of))
      }),
  )
  session.change(title('on the way'), false)
  await vi.advanceTimersByTimeAsync(0)
  session.change(title('there'))
  await vi.advanceTimersByTimeAsync(0)
  expect(signals[0].aborted).toBe(true)
  expect([said(session), session.error]).toEqual(['there', ''])
})

describe('saving', () => {
  test('what hands did is saved once they rest, on the revision it was made on', async () => {
    vi.mocked(api.saveSetup).mockResolvedValue(setup(4))
    session.change(title('a'), false)
    session.change(title('b'))
    expect(session.saving).toBe('waiting')
    await vi.advanceTimersByTimeAsync(400)
    expect(api.saveSetup).toHaveBeenCalledOnce()
    expect(vi.mocked(api.saveSetup).mock.calls[0]).toEqual([
      1,
      3,
      expect.objectContaining({ title: 'b' }),
      expect.objectContaining({ title: 'vault' }),
    ])
    expect([session.saving, session.revision]).toEqual(['saved', 4])
  })

  test('what is changed while a save is under way is saved after it', async () => {
    vi.mocked(api.saveSetup).mockImplementationOnce(async () => {
      session.change(title('second'), false)
      return setup(4)
    })
    vi.mocked(api.saveSetup).mockResolvedValueOnce(setup(5))
    session.change(title('first'))
    await vi.advanceTimersByTimeAsync(1000)
    expect(vi.mocked(api.saveSetup).mock.calls.map((call) => [call[1], call[2].title])).toEqual([
      [3, 'first'],
      [4, 'second'],
    ])
    expect(session.saving).toBe('saved')
  })

  test('an undo waits for the save that is on its way, and for what was changed meanwhile', async () => {
    const asked: string[] = []
    let answer: (saved: Setup) => void = () => {}
    vi.mocked(api.saveSetup).mockImplementationOnce(async () => {
      asked.push('save')
      return new Promise<Setup>((resolve) => (answer = resolve))
    })
    vi.mocked(api.saveSetup).mockImplementationOnce(async () => (asked.push('save again'), setup(5, 'b')))
    vi.mocked(api.undoSetup).mockImplementation(async () => (asked.push('undo'), setup(6, 'a')))
    session.change(title('a'))
    await vi.advanceTimersByTimeAsync(400)
    session.change(title('b'), false)
    const undone = session.undo()
    await vi.advanceTimersByTimeAsync(1000)
    expect(asked).toEqual(['save'])
    answer(setup(4, 'a'))
    await undone
    expect(asked).toEqual(['save', 'save again', 'undo'])
    expect([session.plan?.title, session.revision, session.saving]).toEqual(['a', 6, 'saved'])
  })

  test('a server that is away is asked again, and nothing is lost', async () => {
    vi.mocked(api.saveSetup).mockRejectedValueOnce(new api.ApiError('The server does not answer.', 0)).mockResolvedValueOnce(setup(4))
    session.change(title('kept'))
    await vi.advanceTimersByTimeAsync(400)
    expect([session.saving, session.plan?.title]).toEqual(['offline', 'kept'])
    await vi.advanceTimersByTimeAsync(3100)
    expect([session.saving, session.revision, session.error]).toEqual(['saved', 4, ''])
    expect(vi.mocked(api.saveSetup).mock.calls[1][2].title).toBe('kept')
  })

  test('what the server refuses is told, and the plan is what is stored', async () => {
    vi.mocked(api.saveSetup).mockRejectedValueOnce(new api.ApiError('camera.iso: too much', 422))
    session.change([{ path: 'camera.iso', value: 1e9 }])
    await vi.advanceTimersByTimeAsync(400)
    expect(session.error).toBe('camera.iso: too much')
    expect(session.plan?.camera.iso).toBe(400)
    expect(session.saving).toBe('saved')
  })
})

describe("others' changes", () => {
  test('come in with the answer to a save, and hands that moved on meanwhile save on what both had', async () => {
    const merged = setup(9, 'first, and a lamp of theirs')
    vi.mocked(api.saveSetup).mockImplementationOnce(async () => {
      session.change(title('second'), false)
      return merged
    })
    vi.mocked(api.saveSetup).mockResolvedValueOnce(setup(10, 'second, and a lamp of theirs'))
    session.change(title('first'))
    await vi.advanceTimersByTimeAsync(1000)
    const sent = vi.mocked(api.saveSetup).mock.calls.map(([, base, now, was]) => [base, now.title, was.title])
    expect(sent).toEqual([
      [3, 'first', 'vault'],
      [3, 'second', 'first'],
    ])
    expect([session.plan?.title, session.revision, session.saving]).toEqual(['second, and a lamp of theirs', 10, 'saved'])
  })

  test('an answer from before a save of this page never comes back over it', async () => {
    vi.mocked(api.saveSetup).mockResolvedValue(setup(4, 'mine'))
    let late!: (value: Setup) => void
    vi.mocked(api.getSetup).mockReturnValueOnce(new Promise((done) => (late = done)))
    const heard = session.heard()
    session.change(title('mine'))
    await vi.advanceTimersByTimeAsync(400)
    late(setup(3, 'vault'))
    await heard
    expect([session.plan?.title, session.revision]).toEqual(['mine', 4])
  })
})

describe('somebody else was first', () => {
  const conflict = { title: '', detail: '', kept: 9, current: setup(7, 'theirs') } as unknown as Conflict
  beforeEach(async () => {
    vi.mocked(api.saveSetup).mockResolvedValueOnce(conflict)
    session.change(title('mine'))
    await vi.advanceTimersByTimeAsync(400)
  })

  test('is told, and nothing more is changed or saved until it is settled', async () => {
    expect(session.conflict).toEqual(conflict)
    session.change(title('more'))
    await vi.advanceTimersByTimeAsync(1000)
    expect(session.plan?.title).toBe('mine')
    expect(api.saveSetup).toHaveBeenCalledOnce()
  })

  test('theirs is taken', async () => {
    await session.resolve('theirs')
    expect([session.plan?.title, session.revision, session.conflict]).toEqual(['theirs', 7, null])
  })

  test('mine is put on top of theirs, from the version that the server kept', async () => {
    vi.mocked(api.openVersion).mockResolvedValue(setup(8, 'mine'))
    await session.resolve('mine')
    expect(api.openVersion).toHaveBeenCalledWith(1, 9)
    expect([session.plan?.title, session.revision]).toEqual(['mine', 8])
  })
})

describe('what the server says of the plan', () => {
  test('remedies of before stay, marked as older, until those of now are found', async () => {
    await vi.advanceTimersByTimeAsync(0)
    const found = (remedies: string[]) => ({ check: { findings: [{ id: 'key.clip', remedies }] } }) as unknown as Evaluation
    vi.mocked(api.evaluate).mockImplementation(async (_of, remedies) => found(remedies ? ['old'] : []))
    session.change(title('a'))
    await vi.advanceTimersByTimeAsync(10)
    expect(session.remediesAre).toBe('here')
    vi.mocked(api.evaluate).mockImplementation(
      (_of, remedies) => new Promise((done) => setTimeout(() => done(found(remedies ? ['new'] : [])), remedies ? 1000 : 10)),
    )
    session.change(title('b'))
    await vi.advanceTimersByTimeAsync(50)
    const told = () => session.evaluation?.check.findings[0].remedies as unknown
    expect([told(), session.remediesAre]).toEqual([['old'], 'coming'])
    await vi.advanceTimersByTimeAsync(2000)
    expect([told(), session.remediesAre]).toEqual([['new'], 'here'])
  })

  test('of many moves the newest is asked for, and an older answer does not stay', async () => {
    await vi.advanceTimersByTimeAsync(0)
    vi.mocked(api.evaluate).mockClear()
    vi.mocked(api.evaluate).mockImplementation((of) => new Promise((done) => setTimeout(() => done(evaluation(of)), 50)))
    for (const name of ['a', 'b', 'c']) session.change(title(name), false)
    await vi.advanceTimersByTimeAsync(500)
    expect(said(session)).toBe('c')
    expect(vi.mocked(api.evaluate).mock.calls.map((call) => call[0].title)).toEqual(['a', 'c'])
  })

  test('a hand that moves does not wait for remedies that are being looked for', async () => {
    await vi.advanceTimersByTimeAsync(500)
    vi.mocked(api.evaluate).mockClear()
    vi.mocked(api.evaluate).mockImplementation(
      (of, remedies, _changes, signal) =>
        new Promise((done, fail) => {
          setTimeout(() => done(evaluation(of)), remedies ? 4000 : 10)
          signal?.addEventListener('abort', () => fail(new Error('called off')))
        }),
    )
    vi.mocked(api.saveSetup).mockResolvedValue(setup(4, 'still'))
    session.change(title('still'))
    await vi.advanceTimersByTimeAsync(1000)
    session.change(title('moving'), false)
    await vi.advanceTimersByTimeAsync(100)
    expect([said(session), session.error]).toEqual(['moving', ''])
  })

  test('a remedy is drawn beside the plan, kept as one change, or dropped', async () => {
    const remedy = { text: 'ISO 200', changes: [{ path: 'camera.iso', value: 200 }] }
    await session.attempt(remedy)
    expect([session.ghost?.plan.camera.iso, session.plan?.camera.iso]).toEqual([200, 400])
    session.dropGhost()
    expect(session.ghost).toBeNull()
    await session.attempt(remedy)
    session.keepGhost()
    expect([session.ghost, session.plan?.camera.iso]).toEqual([null, 200])
  })
})
