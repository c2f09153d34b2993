/** The kit room, the table of what a room can shoot, and proposals. */
import { call, client } from './api'
import type { Cell, Framing, Kit, Plan, Proposals, RecorderRow } from './types'

export type StoredKit = { revision: number; kit: Kit }

export const getKit = () => call<StoredKit>(client.GET('/api/kit'))
export const getCatalogue = () => call<StoredKit>(client.GET('/api/kit/catalogue'))
export const saveKit = (base: number, kit: Kit) => call<StoredKit>(client.PUT('/api/kit', { body: { base, kit } }))
export const saveKitCsv = (base: number, text: string) =>
  call<StoredKit>(client.PUT('/api/kit/from-csv', { body: { base, text } }))
export const roomTable = (plan: Plan) =>
  call<{ lenses: string[]; cells: Cell[] }>(client.POST('/api/room-table', { body: { plan } }))
export const propose = (plan: Plan, framing: Framing) =>
  call<Proposals>(client.POST('/api/propose', { body: { plan, framing } }))
export const framingFor = (plan: Plan, framing: Framing) =>
  call<{ camera_z: number; focal_mm: number }>(client.POST('/api/framing', { body: { plan, framing } }))
export const recorders = async (plan: Plan) =>
  (await call<{ recorders: RecorderRow[] }>(client.POST('/api/recorders', { body: { plan } }))).recorders
