/** Frames and clips from the set: cause, corrections, pose, trial key, stand-in, readings by hand, lists. */
import { ApiError, call, client } from './api'
import type { Change, Corner, Frame, Import, Plan } from './types'

const frame = (frame_id: number) => ({ params: { path: { frame_id } } })
const setup = (setup_id: number) => ({ params: { path: { setup_id } } })

export const causeOf = (id: number) => call(client.GET('/api/frames/{frame_id}/cause', frame(id)))
export const driftSince = (id: number, other_id: number) =>
  call(client.GET('/api/frames/{frame_id}/since/{other_id}', { params: { path: { frame_id: id, other_id } } }))
export type Progress = (share: number, job: string) => void
/** The kept file as written otherwise: a still at once, a clip as a job. */
export const readFrameAs = async (frame: Frame, primaries: Primaries | null, transfer: Transfer | null, progress: Progress) =>
  read(
    frame.name,
    await call(client.POST('/api/frames/{frame_id}/colour', { params: { path: { frame_id: frame.id } }, body: { primaries, transfer } })),
    progress,
  )
export type Primaries = '709' | '2020' | 'P3' | '601' | '601-625'
export type Transfer = '709' | 'sRGB' | 'HLG' | 'PQ' | 'linear' | 'log'
export const correct = (id: number, corners: Corner[]) =>
  call(client.POST('/api/frames/{frame_id}/region', { ...frame(id), body: { corners } }))
export const poseOf = (id: number, corners: Corner[], marks: { foot: Corner; head: Corner; height: number } | null) =>
  call(client.POST('/api/frames/{frame_id}/pose', { ...frame(id), body: { corners, foot: null, head: null, height: 1.75, ...marks } }))
export const trialOf = (id: number, clean: number | null) =>
  call(client.GET('/api/frames/{frame_id}/trial', { params: { path: { frame_id: id }, query: { clean } } }))

/** Import a still at once, or a clip as a job whose progress is told; throws what the server says. */
export async function importAny(id: number, file: File, progress: Progress): Promise<Frame> {
  const body = new FormData()
  body.append('file', file, file.name || 'pasted.png')
  const first = await call(
    client.POST('/api/setups/{setup_id}/frames', { ...setup(id), body: body as never, bodySerializer: (b) => b as never }),
  )
  return read(file.name, first, progress)
}
/** What a job reads, followed until it is there; throws what stood in its way. */
async function read(name: string, first: Frame | Import, progress: Progress): Promise<Frame> {
  if (!('state' in first)) return first
  let job = first
  while (job.state === 'running') {
    progress(job.share, job.id)
    await new Promise((done) => setTimeout(done, 300))
    job = await call(client.GET('/api/imports/{job_id}', { params: { path: { job_id: job.id } } }))
  }
  if (job.frame) return job.frame
  throw new ApiError(job.state === 'cancelled' ? `${name}: cancelled` : job.problem, 422)
}
export const cancelImport = (job_id: string) => call(client.DELETE('/api/imports/{job_id}', { params: { path: { job_id } } }))

export const getStandin = (id: number, tell = false) =>
  call(client.GET('/api/setups/{setup_id}/standin', { params: { path: { setup_id: id }, query: { tell } } }))
export const buildStandin = (id: number, seed: number, faults: boolean) =>
  call(client.POST('/api/setups/{setup_id}/standin', { ...setup(id), body: { seed, faults } }))
export const touchStandin = (id: number, changes: Change[]) =>
  call(client.PATCH('/api/setups/{setup_id}/standin', { ...setup(id), body: { changes } }))
export const lookThrough = (id: number) => call(client.GET('/api/setups/{setup_id}/standin/look', setup(id)))
export const record = (id: number, what: 'still' | 'clip') =>
  call(client.POST('/api/setups/{setup_id}/standin/record', { ...setup(id), body: { what } }))
export const meter = (id: number, kind: 'incident' | 'spot', at: number[]) =>
  call(client.POST('/api/setups/{setup_id}/standin/meter', { ...setup(id), body: { kind, at } }))

export const watchState = (id: number) => call(client.GET('/api/setups/{setup_id}/watch', setup(id)))
export const watchFolder = (id: number, folder: string) =>
  call(client.PUT('/api/setups/{setup_id}/watch', { ...setup(id), body: { folder } }))
export const stopWatch = (id: number) => call(client.DELETE('/api/setups/{setup_id}/watch', setup(id)))

export const readNine = (plan: Plan, values: (number | null)[], unit: 'percent' | 'lux' | 'foot-candle' | 'stops') =>
  call(client.POST('/api/readings', { body: { plan, values, unit } }))
export const readZebra = (first: number, full: number) => call(client.POST('/api/zebra', { body: { first, full } }))

export const getLists = async (id: number) => (await call(client.GET('/api/setups/{setup_id}/lists', setup(id)))).items
export const tick = async (setup_id: number, item: string, ticked: boolean) =>
  (await call(client.PUT('/api/setups/{setup_id}/lists/{item}', { params: { path: { setup_id, item } }, body: { ticked } }))).items
export const clearLists = async (id: number) => (await call(client.DELETE('/api/setups/{setup_id}/lists', setup(id)))).items
