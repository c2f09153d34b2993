import { beforeEach, expect, test, vi } from 'vitest'
import { ApiError } from './api'
import * as api from './productionApi'
import { OpenProduction } from './production.svelte'

vi.mock('./productionApi', () => ({
  getProduction: vi.fn(),
  saveProduction: vi.fn(),
  undoProduction: vi.fn(),
  redoProduction: vi.fn(),
  productionState: vi.fn(),
}))

const stored = (revision: number, title: string, place = '') =>
  ({ id: 1, revision, production: { title, place }, can_undo: true, can_redo: false }) as unknown as api.StoredProduction

let open: OpenProduction
beforeEach(async () => {
  vi.resetAllMocks()
  vi.mocked(api.productionState).mockResolvedValue({} as api.ProductionState)
  vi.mocked(api.getProduction).mockResolvedValue(stored(3, 'film'))
  open = new OpenProduction()
  await open.open(1)
})

test('an answer to an earlier change does not take away what hands changed meanwhile', async () => {
  let answer: (to: api.StoredProduction) => void = () => {}
  vi.mocked(api.saveProduction).mockReturnValueOnce(new Promise((resolve) => (answer = resolve)))
  vi.mocked(api.saveProduction).mockResolvedValueOnce(stored(5, 'two', 'hall'))
  open.change([{ path: 'title', value: 'two' }])
  await vi.waitFor(() => expect(api.saveProduction).toHaveBeenCalledOnce())
  open.change([{ path: 'place', value: 'hall' }])
  answer(stored(4, 'two'))
  await vi.waitFor(() => expect(api.saveProduction).toHaveBeenCalledTimes(2))
  expect([open.document?.title, open.document?.place]).toEqual(['two', 'hall'])
  // On the revision that the first one made.
  expect(vi.mocked(api.saveProduction).mock.calls[1].slice(0, 2)).toEqual([1, 4])
  expect(vi.mocked(api.saveProduction).mock.calls[1][2]).toMatchObject({ title: 'two', place: 'hall' })
})

test('an undo waits for the saves before it', async () => {
  const asked: string[] = []
  vi.mocked(api.saveProduction).mockImplementation(async () => (asked.push('save'), stored(4, 'two')))
  vi.mocked(api.undoProduction).mockImplementation(async () => (asked.push('undo'), stored(5, 'film')))
  open.change([{ path: 'title', value: 'two' }])
  open.undo()
  await vi.waitFor(() => expect(open.document?.title).toBe('film'))
  expect(asked).toEqual(['save', 'undo'])
})

test('what is changed while an undo is on its way is changed of what the undo brings back', async () => {
  let answer: (to: api.StoredProduction) => void = () => {}
  vi.mocked(api.undoProduction).mockReturnValueOnce(new Promise((resolve) => (answer = resolve)))
  vi.mocked(api.saveProduction).mockResolvedValueOnce(stored(5, 'before', 'hall'))
  open.undo()
  open.change([{ path: 'place', value: 'hall' }])
  expect(open.document?.place).toBe('hall')
  await vi.waitFor(() => expect(api.undoProduction).toHaveBeenCalledOnce())
  answer(stored(4, 'before'))
  await vi.waitFor(() => expect(api.saveProduction).toHaveBeenCalledOnce())
  expect(vi.mocked(api.saveProduction).mock.calls[0][2]).toMatchObject({ title: 'before', place: 'hall' })
  expect([open.document?.title, open.document?.place]).toEqual(['before', 'hall'])
})

test('what the network lost goes along with the next change; what was refused does not', async () => {
  vi.mocked(api.saveProduction).mockRejectedValueOnce(new Error('away'))
  vi.mocked(api.saveProduction).mockResolvedValueOnce(stored(4, 'two', 'hall'))
  vi.mocked(api.saveProduction).mockRejectedValueOnce(new ApiError('no', 422))
  vi.mocked(api.saveProduction).mockResolvedValueOnce(stored(5, 'two', 'loft'))
  open.change([{ path: 'title', value: 'two' }])
  await vi.waitFor(() => expect(open.error).toBe('away'))
  open.change([{ path: 'place', value: 'hall' }])
  await vi.waitFor(() => expect(open.error).toBe(''))
  expect(vi.mocked(api.saveProduction).mock.calls[1][2]).toMatchObject({ title: 'two', place: 'hall' })
  vi.mocked(api.getProduction).mockResolvedValueOnce(stored(4, 'two', 'hall'))
  open.change([{ path: 'title', value: '' }])
  await vi.waitFor(() => expect(open.document?.title).toBe('two'))
  open.change([{ path: 'place', value: 'loft' }])
  await vi.waitFor(() => expect(api.saveProduction).toHaveBeenCalledTimes(4))
  expect(vi.mocked(api.saveProduction).mock.calls[3][2]).toMatchObject({ title: 'two', place: 'loft' })
})

test('a production that is opened waits for the saves of the one before it', async () => {
  let answer: (to: api.StoredProduction) => void = () => {}
  vi.mocked(api.saveProduction).mockReturnValueOnce(new Promise((resolve) => (answer = resolve)))
  open.change([{ path: 'title', value: 'two' }])
  vi.mocked(api.getProduction).mockResolvedValue({ ...stored(7, 'other'), id: 2 } as never)
  const opened = open.open(2)
  await vi.waitFor(() => expect(api.saveProduction).toHaveBeenCalledOnce())
  vi.mocked(api.saveProduction).mockResolvedValueOnce(stored(5, 'two', 'hall'))
  open.change([{ path: 'place', value: 'hall' }])
  answer(stored(4, 'two'))
  await opened
  expect(vi.mocked(api.saveProduction).mock.calls.map((call) => call[0])).toEqual([1, 1])
  expect([open.id, open.document?.title]).toEqual([2, 'other'])
})

test('what another page changed does not take away what hands changed while it was asked for', async () => {
  let answer: (to: api.StoredProduction) => void = () => {}
  vi.mocked(api.getProduction).mockReturnValueOnce(new Promise((resolve) => (answer = resolve)))
  vi.mocked(api.getProduction).mockResolvedValueOnce(stored(4, 'theirs'))
  vi.mocked(api.saveProduction).mockReturnValue(new Promise(() => {}))
  open.heard()
  open.heard()
  open.change([{ path: 'title', value: 'mine' }])
  answer(stored(4, 'theirs'))
  await vi.waitFor(() => expect(api.saveProduction).toHaveBeenCalledOnce())
  expect(open.document?.title).toBe('mine')
})
