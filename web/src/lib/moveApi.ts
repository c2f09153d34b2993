/** Tracking marks, copies, and the sun. */
import { call, client } from './api'
import type { Plan } from './types'

export type Move = { wanted: number; pan: number; tilt: number; travel: number; zoom: number }
export type Crowd = { rows: number; columns: number; spacing: number; row_depth: number }

export const trackingMarks = (plan: Plan, move: Move) => call(client.POST('/api/tracking-marks', { body: { plan, ...move } }))
export const copies = (plan: Plan, crowd: Crowd) => call(client.POST('/api/copies', { body: { plan, ...crowd } }))
export const sun = (latitude: number, longitude: number, when: string, heading: number) =>
  call(client.POST('/api/sun', { body: { latitude, longitude, when, heading } }))
