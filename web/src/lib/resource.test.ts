import { expect, test, vi } from 'vitest'
import { Resource } from './resource.svelte'

const later = <T>(value: T, ms: number) => new Promise<T>((done) => setTimeout(() => done(value), ms))

test('a late answer to an older question does not take the place of the newer one', async () => {
  const asked = new Resource<string>()
  const first = asked.ask(() => later('old', 30))
  const second = asked.ask(() => later('new', 1))
  expect(await second).toBe('new')
  expect(await first).toBeNull()
  expect(asked.value).toBe('new')
  expect(asked.busy).toBe(false)
})

test('while hands move nothing is asked; of many questions only the last is', async () => {
  vi.useFakeTimers()
  const asked = new Resource<number>()
  const question = vi.fn(async () => 1)
  void asked.ask(question, 200)
  await vi.advanceTimersByTimeAsync(150)
  void asked.ask(question, 200)
  await vi.advanceTimersByTimeAsync(150)
  expect(question).not.toHaveBeenCalled()
  await vi.advanceTimersByTimeAsync(60)
  expect(question).toHaveBeenCalledOnce()
  vi.useRealTimers()
})

test('a failure is told in the words of the server, and the next answer takes it back', async () => {
  const asked = new Resource<number>()
  await asked.ask(() => Promise.reject(new Error('too dark')))
  expect([asked.value, asked.error, asked.busy]).toEqual([null, 'too dark', false])
  await asked.ask(async () => 3)
  expect([asked.value, asked.error]).toEqual([3, ''])
})

test('what was forgotten does not come back', async () => {
  const asked = new Resource<number>()
  const question = asked.ask(() => later(1, 5))
  asked.clear()
  await question
  expect(asked.value).toBeNull()
})

test('a newer question calls the older one off, and so does leaving', async () => {
  const asked = new Resource<number>()
  const signals: AbortSignal[] = []
  const question = (signal: AbortSignal) => (signals.push(signal), later(1, 50))
  void asked.ask(question)
  void asked.ask(question)
  expect(signals.map((signal) => signal.aborted)).toEqual([true, false])
  asked.clear()
  expect(signals[1].aborted).toBe(true)
})

test('what is known meanwhile is shown until the answer is there, and not over a newer question', async () => {
  const asked = new Resource<string>()
  const shown: (string | null)[] = []
  const question = async (_: AbortSignal, meanwhile: (value: string) => void) => {
    meanwhile('known')
    shown.push(asked.value)
    return later('worked out', 5)
  }
  expect(await asked.ask(question)).toBe('worked out')
  expect(shown).toEqual(['known'])
  let late = (_: string) => {}
  void asked.ask((_, meanwhile) => ((late = meanwhile), later('old', 50)))
  await asked.ask(async () => 'new')
  late('old, known')
  expect(asked.value).toBe('new')
})
