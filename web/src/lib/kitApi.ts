/** The kit room, the table of what a room can shoot, and proposals. */
import { call, client } from './api'
import type { Framing, Kit, Plan } from './types'

export type StoredKit = { revision: number; kit: Kit; can_undo: boolean; can_redo: boolean }

export const getKit = () => call(client.GET('/api/kit'))
export const kitUses = () => call(client.GET('/api/kit/uses'))
export const getCatalogue = () => call(client.GET('/api/kit/catalogue'))
export const saveKit = (base: number, kit: Kit) => call(client.PUT('/api/kit', { body: { base, kit } }))
export const addToKit = (base: number, kit: Kit) => call(client.POST('/api/kit/add', { body: { base, kit } }))
export const redoKit = () => call(client.POST('/api/kit/redo'))
export const undoKit = () => call(client.POST('/api/kit/undo'))
export const saveKitCsv = (base: number, text: string) => call(client.PUT('/api/kit/from-csv', { body: { base, text } }))
export const roomTable = (plan: Plan, signal?: AbortSignal) => call(client.POST('/api/room-table', { body: { plan }, signal }))
export const propose = (plan: Plan, framing: Framing, signal?: AbortSignal) =>
  call(client.POST('/api/propose', { body: { plan, framing }, signal }))
export const framingFor = (plan: Plan, framing: Framing) => call(client.POST('/api/framing', { body: { plan, framing } }))
export const recorders = async (plan: Plan, signal?: AbortSignal) =>
  (await call(client.POST('/api/recorders', { body: { plan }, signal }))).recorders
