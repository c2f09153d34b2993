/** A plan's room in the words of the job, and what of the plan changes when a word does. */
import { round } from './changes'
import { TONES } from './facts.generated'
import type { Said, Tone } from './startApi'
import type { Change, Plan } from './types'

type Room = Plan['room']
export const SURFACES = ['walls', 'ceiling', 'floor'] as const
export type Surface = (typeof SURFACES)[number]
const mean = (rgb: readonly number[]) => (rgb[0] + rgb[1] + rgb[2]) / 3

/** The word that comes nearest by ratio. */
export function toneOf(room: Room, surface: Surface): Tone {
  const own = Math.max(mean(room.reflectance[surface]), 1e-3)
  const far = (word: string) => Math.abs(Math.log2(own / mean(TONES[word])))
  return Object.keys(TONES).reduce((best, word) => (far(word) < far(best) ? word : best)) as Tone
}

export const roomSaid = (room: Room): Said['room'] => ({
  outdoors: room.kind === 'exterior',
  length: round(room.z_max - room.z_min, 3),
  width: round(room.x_max - room.x_min, 3),
  height: room.height,
  walls: toneOf(room, 'walls'),
  ceiling: toneOf(room, 'ceiling'),
  floor: toneOf(room, 'floor'),
})

/** Only what is said anew changes: the wall behind the screen stays, both sides are moved alike. */
export function roomChanges(room: Room, to: Said['room']): Change[] {
  const was = roomSaid(room)
  const changes: Change[] = []
  const put = (path: string, value: unknown) => changes.push({ path: `room.${path}`, value })
  if (to.outdoors !== was.outdoors) put('kind', to.outdoors ? 'exterior' : 'interior')
  if (to.length !== null && to.length !== was.length) put('z_max', round(room.z_min + to.length, 3))
  if (to.width !== null && to.width !== was.width) {
    const middle = (room.x_min + room.x_max) / 2
    put('x_min', round(middle - to.width / 2, 3))
    put('x_max', round(middle + to.width / 2, 3))
  }
  if (to.height !== null && to.height !== was.height) put('height', to.height)
  for (const surface of SURFACES) {
    const word = to[surface]
    if (word !== null && word !== was[surface]) put(`reflectance.${surface}`, TONES[word])
  }
  return changes
}
