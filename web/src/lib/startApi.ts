/** The first two minutes: what is said of a room and its things, and what becomes of it. */
import { call, client } from './api'
import type { components } from './schema.generated'
import type { Plan } from './types'

export type FirstSet = components['schemas']['FirstSetModel']
export type Possible = components['schemas']['PossibleModel']
export type Tone = 'white' | 'grey' | 'dark' | 'draped'
export type LampKind = 'small-panel' | 'large-panel' | 'soft-box' | 'tube' | 'bulb-in-a-bowl' | 'window'
export type LampSaid = { kind: LampKind | null; name: string | null; count: number; lumens: number | null; watts: number | null }

/** As the server's `Said` has it; null and empty are questions that were skipped. */
export type Said = {
  title: string
  room: {
    outdoors: boolean
    length: number | null
    width: number | null
    height: number | null
    walls: Tone | null
    ceiling: Tone | null
    floor: Tone | null
  }
  cloth: { kind: string | null; hue: 'green' | 'blue' | null; width: number | null; height: number | null }
  lamps: LampSaid[]
  camera: { kind: string | null; lenses: number[] }
  framing: string | null
  movement: string | null
  behind: string | null
}

export const nothingSaid = (): Said => ({
  title: '',
  room: { outdoors: false, length: null, width: null, height: null, walls: null, ceiling: null, floor: null },
  cloth: { kind: null, hue: null, width: null, height: null },
  lamps: [],
  camera: { kind: null, lenses: [] },
  framing: null,
  movement: null,
  behind: null,
})

export const possibleWith = (said: Said, signal: AbortSignal) => call(client.POST('/api/start/possible', { body: { said }, signal }))
export const firstSet = (said: Said, signal: AbortSignal) => call(client.POST('/api/start', { body: { said }, signal }))

export const LAMP_KINDS: [LampKind, string][] = [
  ['small-panel', 'small panel'],
  ['large-panel', 'large panel'],
  ['soft-box', 'soft box'],
  ['tube', 'tube'],
  ['bulb-in-a-bowl', 'bulb in a bowl'],
  ['window', 'window'],
]

/** The kit's lamps with how many of each the plan does not use yet. */
export const freeLamps = (plan: Plan) => call(client.POST('/api/start/free-lamps', { body: { plan } }))
export const oneMoreLamp = (plan: Plan, lamp: { kind: LampKind } | { name: string }) =>
  call(client.POST('/api/start/lamp', { body: { plan, lamp } }))
