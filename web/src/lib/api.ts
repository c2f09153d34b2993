/** The one way to the server. Every failure becomes an ApiError with the server's own words. */
import createClient, { type FetchResponse } from 'openapi-fetch'
import { PAGE } from './page'
import type { paths } from './schema.generated'
import type { Change, Conflict, Plan, Setup } from './types'
import { who } from './who.svelte'

const MOST_TRIES = 4

/** A server that has much to do says when to come again; then the same is asked once more. */
async function patient(request: Request): Promise<Response> {
  if (request.method !== 'GET') {
    request.headers.set('X-Page', PAGE)
    if (who.csrf) request.headers.set('X-CSRF', who.csrf)
  }
  for (let tries = 1; ; tries += 1) {
    const response = await fetch(request.clone())
    // Put out, or the door was closed and opened again: the passcode is asked for anew.
    if (response.status === 401) who.me = 'stranger'
    if (response.status !== 429 || tries === MOST_TRIES) return response
    const wait = Number(response.headers.get('Retry-After') ?? 2)
    await new Promise((done) => setTimeout(done, 1000 * wait))
    request.signal.throwIfAborted()
  }
}

export const client = createClient<paths>({ baseUrl: '', fetch: patient })

export class ApiError extends Error {
  constructor(
    message: string,
    readonly status: number,
  ) {
    super(message)
  }
}

/** The body that an operation promises for success. The client's own types lose tuples, the generated ones keep them. */
type Success = 200 | 201 | 202
type Body<R> = R extends { content: { 'application/json': infer B } } ? B : undefined
type Promised<Op> = Op extends { responses: infer R } ? { [S in keyof R & Success]: Body<R[S]> }[keyof R & Success] : never

/** The answer, of the type that the server's description promises for this path and method. */
export async function call<Op extends Record<string | number, unknown>, O, M extends `${string}/${string}`>(
  call: Promise<FetchResponse<Op, O, M>>,
): Promise<Promised<Op>> {
  let result: FetchResponse<Op, O, M>
  try {
    result = await call
  } catch {
    throw new ApiError('The server does not answer. It keeps what was saved; this page tries again.', 0)
  }
  if (result.response.ok) return result.data as Promised<Op>
  const detail = (result.error as { detail?: string } | undefined)?.detail
  throw new ApiError(detail ?? `The server answered ${result.response.status}.`, result.response.status)
}

const at = (setup_id: number) => ({ params: { path: { setup_id } } })

export const listSetups = async (signal?: AbortSignal) => (await call(client.GET('/api/setups', { signal }))).setups
/** What there is to open, without what is wrong with it: there at once. */
export const listTitles = async () => (await call(client.GET('/api/setups/titles'))).setups
export const getSetup = (id: number) => call(client.GET('/api/setups/{setup_id}', at(id)))
export const createSetup = (title: string, plan?: Record<string, unknown>) =>
  call(client.POST('/api/setups', { body: { title, plan: plan ?? null } }))
export const renameSetup = (id: number, title: string) => call(client.PATCH('/api/setups/{setup_id}', { ...at(id), body: { title } }))
export const deleteSetup = (id: number) => call(client.DELETE('/api/setups/{setup_id}', at(id)))
export const restoreSetup = (id: number) => call(client.POST('/api/setups/{setup_id}/restore', at(id)))
export const duplicateSetup = (id: number) => call(client.POST('/api/setups/{setup_id}/duplicate', at(id)))
export const undoSetup = (id: number) => call(client.POST('/api/setups/{setup_id}/undo', at(id)))
export const redoSetup = (id: number) => call(client.POST('/api/setups/{setup_id}/redo', at(id)))
export const listVersions = async (id: number) => (await call(client.GET('/api/setups/{setup_id}/versions', at(id)))).versions
export const nameVersion = (id: number, name: string) => call(client.POST('/api/setups/{setup_id}/versions', { ...at(id), body: { name } }))
export const versionPlan = async (setup_id: number, version_id: number) =>
  (await call(client.GET('/api/setups/{setup_id}/versions/{version_id}', { params: { path: { setup_id, version_id } } }))).plan
export const openVersion = (setup_id: number, version_id: number) =>
  call(client.POST('/api/setups/{setup_id}/versions/{version_id}/open', { params: { path: { setup_id, version_id } } }))

/** A plan with large tables in it goes alone: the server takes 6 MB in all. Characters of JSON. */
const BOTH_UP_TO = 1_500_000
export function saveBody(base: number, plan: Plan, was: Plan) {
  const both = [plan, was].every((one) => JSON.stringify(one).length <= BOTH_UP_TO)
  return { base, plan, was: both ? was : null }
}

/** Save what was made of the plan `was`, together with others' changes; or learn where theirs and mine collide. */
export async function saveSetup(id: number, base: number, plan: Plan, was: Plan): Promise<Setup | Conflict> {
  const put = client.PUT('/api/setups/{setup_id}', { ...at(id), body: saveBody(base, plan, was) })
  const result = await put.catch(() => undefined)
  if (result?.response.status === 409) return result.error as Conflict
  return call(result ? Promise.resolve(result) : Promise.reject(new Error('no answer')))
}

/** The planned set as the camera would see it, JPEG in base64; `at_once`: in light that is known, or not at all. */
export const drawPlan = (plan: Plan, at_once: boolean, signal?: AbortSignal) =>
  call(client.POST('/api/picture', { body: { plan, at_once }, signal }))
export const evaluate = (plan: Plan, remedies: boolean, changes: Change[] = [], signal?: AbortSignal) =>
  call(client.POST('/api/evaluate', { body: { plan, remedies, changes }, signal }))

export const listFrames = async (id: number) => (await call(client.GET('/api/setups/{setup_id}/frames', at(id)))).frames
export const getFrame = (frame_id: number) => call(client.GET('/api/frames/{frame_id}', { params: { path: { frame_id } } }))
export const deleteFrame = (frame_id: number) => call(client.DELETE('/api/frames/{frame_id}', { params: { path: { frame_id } } }))
export const restoreFrame = (frame_id: number) => call(client.POST('/api/frames/{frame_id}/restore', { params: { path: { frame_id } } }))
export const trash = () => call(client.GET('/api/trash'))
export const compareFrame = (frame_id: number) => call(client.GET('/api/frames/{frame_id}/comparison', { params: { path: { frame_id } } }))
export const glossary = async () => (await call(client.GET('/api/glossary'))).terms
