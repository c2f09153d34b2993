import { afterEach, beforeEach, expect, test, vi } from 'vitest'
import { ApiError } from './api'
import { logTake, type Take, type Takes } from './productionApi'
import { TakeQueue } from './takeQueue.svelte'

vi.mock('./productionApi', () => ({ logTake: vi.fn() }))

const take = (key: string, number = 1) => ({ key, number }) as unknown as Take
const list = (...keys: string[]) => ({ takes: keys.map((key) => take(key)), shots: [] }) as unknown as Takes
const kept = new Map<string, string>()
const waits = () => (JSON.parse(kept.get('ausblick.takes') ?? '[]') as { take: Take }[]).map((one) => one.take.key)

beforeEach(() => {
  vi.useFakeTimers()
  vi.mocked(logTake).mockReset()
  kept.clear()
  vi.stubGlobal('localStorage', { getItem: (k: string) => kept.get(k) ?? null, setItem: (k: string, v: string) => kept.set(k, v) })
  vi.stubGlobal('window', { addEventListener: () => {}, removeEventListener: () => {} })
})
afterEach(() => vi.unstubAllGlobals())

test('a take is in the browser before it is sent, and gone once it has arrived', async () => {
  let answer: (takes: Takes) => void = () => {}
  vi.mocked(logTake).mockReturnValue(new Promise((resolve) => (answer = resolve)))
  const queue = new TakeQueue()
  const heard = vi.fn()
  queue.listen(heard)
  queue.log(3, take('one'))
  expect(waits()).toEqual(['one'])
  answer(list('one'))
  await vi.advanceTimersByTimeAsync(0)
  expect(waits()).toEqual([])
  expect(heard).toHaveBeenCalledExactlyOnceWith(list('one'), 3)
})

test('while the server is away takes wait, across a reload, and are sent in their order', async () => {
  vi.mocked(logTake).mockRejectedValue(new ApiError('The server does not answer.', 0))
  const before = new TakeQueue()
  before.log(3, take('one'))
  before.log(3, take('two'))
  await vi.advanceTimersByTimeAsync(100)
  expect(waits()).toEqual(['one', 'two'])
  vi.clearAllTimers()
  vi.mocked(logTake).mockReset()
  vi.mocked(logTake).mockResolvedValue(list())
  const after = new TakeQueue()
  after.listen(() => {})
  await vi.advanceTimersByTimeAsync(0)
  expect(vi.mocked(logTake).mock.calls.map(([, sent]) => sent.key)).toEqual(['one', 'two'])
  expect(waits()).toEqual([])
})

test('what the server refuses holds up no other, is not sent again and again, and stays until it is dropped', async () => {
  vi.mocked(logTake).mockImplementation(async (_, sent) => {
    if (sent.key === 'bad') throw new ApiError('number: must be 1 or more', 422)
    return list(sent.key)
  })
  const queue = new TakeQueue()
  queue.log(3, take('bad'))
  queue.log(3, take('good'))
  await vi.advanceTimersByTimeAsync(60_000)
  expect(queue.refused).toBe('number: must be 1 or more')
  expect(waits()).toEqual(['bad'])
  const times = vi.mocked(logTake).mock.calls.filter(([, sent]) => sent.key === 'bad').length
  expect(times).toBeLessThanOrEqual(2)
  queue.drop('bad')
  expect(waits()).toEqual([])
  expect(queue.refused).toBe('')
})

test('what was changed while it was on its way is sent once more', async () => {
  const queue = new TakeQueue()
  let answer: (takes: Takes) => void = () => {}
  vi.mocked(logTake).mockReturnValueOnce(new Promise((resolve) => (answer = resolve)))
  vi.mocked(logTake).mockResolvedValueOnce(list('one'))
  queue.log(3, take('one', 1))
  queue.log(3, take('one', 2))
  answer(list('one'))
  await vi.advanceTimersByTimeAsync(0)
  expect(vi.mocked(logTake).mock.calls.map(([, sent]) => sent.number)).toEqual([1, 2])
  expect(waits()).toEqual([])
})

test('each take is told to the page with the production that it is of', async () => {
  vi.mocked(logTake).mockImplementation(async (production, sent) => list(`${production} ${sent.key}`))
  const queue = new TakeQueue()
  const heard: [Takes, number][] = []
  queue.listen((takes, production) => heard.push([takes, production]))
  queue.log(3, take('one'))
  queue.log(4, take('two'))
  await vi.advanceTimersByTimeAsync(0)
  expect(heard.map(([takes, production]) => [takes.takes[0].key, production])).toEqual([
    ['3 one', 3],
    ['4 two', 4],
  ])
})

test('what is removed while a take is on its way stays removed: one question at a time', async () => {
  let answer: (takes: Takes) => void = () => {}
  vi.mocked(logTake).mockReturnValue(new Promise((resolve) => (answer = resolve)))
  const queue = new TakeQueue()
  const lists: Takes[] = []
  queue.listen((takes) => lists.push(takes))
  queue.log(3, take('two'))
  const remove = vi.fn(async () => list('two'))
  const removed = queue.inTurn(remove).then((takes) => lists.push(takes))
  await vi.advanceTimersByTimeAsync(100)
  expect(remove).not.toHaveBeenCalled()
  answer(list('one', 'two'))
  await removed
  expect(lists).toEqual([list('one', 'two'), list('two')])
})

test('a question that failed does not hold up the next', async () => {
  const queue = new TakeQueue()
  await expect(queue.inTurn(() => Promise.reject(new Error('away')))).rejects.toThrow('away')
  await expect(queue.inTurn(async () => 7)).resolves.toBe(7)
})
