/** Productions and takes at the server, and short names for what comes from there. */
import { call, client } from './api'
import type { components } from './schema.generated'

type Schemas = components['schemas']
export type Production = Schemas['Production']
export type StoredProduction = Schemas['ProductionModel']
export type ProductionSummary = Schemas['ProductionSummary']
export type ProductionState = Schemas['ProductionState']
export type DayPlan = Schemas['DayPlan']
export type DayEntry = Schemas['DayEntry']
export type DayFinding = Schemas['DayFinding']
export type Shot = Schemas['PlannedShot']
export type Take = Schemas['Take']
export type Takes = Schemas['TakesModel']
export type TakeFinding = Schemas['TakeFinding']

const at = (production_id: number) => ({ params: { path: { production_id } } })
const loose = (production: Production) => production as unknown as Record<string, never>

export const listProductions = () => call(client.GET('/api/productions'))
export const createProduction = (production: unknown) =>
  call(client.POST('/api/productions', { body: { base: 0, production: production as Record<string, never> } }))
export const getProduction = (id: number) => call(client.GET('/api/productions/{production_id}', at(id)))
export const saveProduction = (id: number, base: number, production: Production) =>
  call(client.PUT('/api/productions/{production_id}', { ...at(id), body: { base, production: loose(production) } }))
export const undoProduction = (id: number) => call(client.POST('/api/productions/{production_id}/undo', at(id)))
export const redoProduction = (id: number) => call(client.POST('/api/productions/{production_id}/redo', at(id)))
export const deleteProduction = (id: number) => call(client.DELETE('/api/productions/{production_id}', at(id)))
export const restoreProduction = (id: number) => call(client.POST('/api/productions/{production_id}/restore', at(id)))
export const productionState = async (production_id: number, asked: { day?: number; now?: number }, signal?: AbortSignal) =>
  (await call(client.GET('/api/productions/{production_id}/state', { params: { path: { production_id }, query: asked }, signal }))).state
export const planDays = async (production: Production, signal?: AbortSignal) =>
  (await call(client.POST('/api/productions/day', { body: { base: 0, production: loose(production) }, signal }))).day

export const listTakes = (production_id: number, wrap = false) =>
  call(client.GET('/api/productions/{production_id}/takes', { params: { path: { production_id }, query: { wrap } } }))
export const logTake = (id: number, take: Take) =>
  call(client.POST('/api/productions/{production_id}/takes', { ...at(id), body: { take: take as unknown as Record<string, never> } }))
const one = (production_id: number, key: string) => ({ params: { path: { production_id, key } } })
export const deleteTake = (id: number, key: string) => call(client.DELETE('/api/productions/{production_id}/takes/{key}', one(id, key)))
export const restoreTake = (id: number, key: string) =>
  call(client.POST('/api/productions/{production_id}/takes/{key}/restore', one(id, key)))
export const takeFindings = async (id: number, key: string) =>
  (await call(client.GET('/api/productions/{production_id}/takes/{key}/findings', one(id, key)))).findings
export const exportOf = (id: number, to: 'day' | 'csv' | 'packing' | 'ics' | 'json' | 'log' | 'log-csv' | 'bundle', paper = 'a4') =>
  `/api/productions/${id}/export/${to}?paper=${paper}`
