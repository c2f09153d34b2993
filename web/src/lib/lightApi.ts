/** Even the screen, choose the distance, read a photometry file. */
import { call, client } from './api'
import type { LedgerRow, Plan } from './types'

export type Freedoms = { heights: boolean; positions: boolean; aims: boolean }

export const evenScreen = (plan: Plan, freedoms: Freedoms, signal?: AbortSignal) =>
  call(client.POST('/api/even-screen', { body: { plan, ...freedoms }, signal }))
export const distances = (plan: Plan, signal?: AbortSignal) => call(client.POST('/api/distances', { body: { plan }, signal }))
export const readPhotometry = (text: string) => call(client.POST('/api/photometry', { body: { text } }))
export const ledger = (plan: Plan, locked: Exclude<LedgerRow, 'frame rate'>[], signal?: AbortSignal) =>
  call(client.POST('/api/ledger', { body: { plan, locked }, signal }))
