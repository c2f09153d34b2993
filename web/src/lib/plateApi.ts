/** Plates: what a picture and the marks on it tell, and the lighting brief. */
import { call, client } from './api'
import type { Brief, MarksBody, MarksResult, Plan, PlateReading } from './types'

export function readPlate(file: File): Promise<PlateReading> {
  const body = new FormData()
  body.append('file', file, file.name)
  return call<PlateReading>(client.POST('/api/plate/read', { body: body as never, bodySerializer: (b) => b as never }))
}
export const readMarks = (body: MarksBody) => call<MarksResult>(client.POST('/api/plate/marks', { body }))
export const lightingBrief = (plan: Plan) => call<Brief>(client.POST('/api/brief', { body: { plan } }))
