/** Plates: what a picture and the marks on it tell, and the lighting brief. */
import { call, client } from './api'
import type { MarksBody, Plan, PlateReading } from './types'

/** Read the plate and keep its picture with the set-up. */
export function keepPlate(setup_id: number, file: File): Promise<PlateReading> {
  const body = new FormData()
  body.append('file', file, file.name)
  return call(
    client.PUT('/api/setups/{setup_id}/plate', { params: { path: { setup_id } }, body: body as never, bodySerializer: (b) => b as never }),
  )
}
export const keptPlate = (setup_id: number) =>
  call(client.GET('/api/setups/{setup_id}/plate', { params: { path: { setup_id } } })).catch(() => null)
export const dropPlate = (setup_id: number) => call(client.DELETE('/api/setups/{setup_id}/plate', { params: { path: { setup_id } } }))
export const restorePlate = (setup_id: number) =>
  call(client.POST('/api/setups/{setup_id}/plate/restore', { params: { path: { setup_id } } }))
export const readMarks = (body: MarksBody) => call(client.POST('/api/plate/marks', { body }))
export const lightingBrief = (plan: Plan, signal?: AbortSignal) => call(client.POST('/api/brief', { body: { plan }, signal }))
