/** How a drawing shows the set: a flat picture of places in metres. Every mark is drawn and moved through one. */
import { upOf } from './body'
import { round } from './changes'
import type { Move } from './drag'
import type { Sheet } from './sheet'
import { path } from './sheet'
import type { Camera, Emitter, Place, Screen, Subject } from './types'

export type Point = readonly [number, number]

export interface Projection {
  view: 'from above' | 'side view'
  /** px per metre. */
  scale: number
  /** Coordinates that a drag changes. */
  axes: readonly ('x' | 'y' | 'z')[]
  at: (place: readonly number[]) => Point
  /** Metres that a drag means in the set. */
  shift: (by: Move) => Place
  /** Sides of the reach that are seen here. */
  reach: readonly ('left' | 'right' | 'front' | 'back' | 'up')[]
  /** The two ends of [left, low, right, high] on the screen's plane. */
  ends: (on: readonly number[]) => [Place, Place]
  screen: (screen: Screen) => [Place, Place]
  /** How far the camera is turned in this picture, degrees. */
  turned: (camera: Camera) => number
  /** Width of a lamp's face in this picture, m. */
  face: (emitter: Emitter) => number
  /** Outlines of the figure, px: the body, then its head where that is drawn apart. */
  figure: (subject: Subject) => string[]
  /** Names beside the numbers of the lamps. */
  named: boolean
}

const USUAL_FACE = 0.3

/** From above: z to the right, x upward, which is right of the camera. */
export function fromAbove(sheet: Sheet): Projection {
  const at = ([x, , z]: readonly number[]): Point => [sheet.z(z), sheet.x(x)]
  return {
    view: 'from above',
    scale: sheet.scale,
    axes: ['z', 'x'],
    at,
    shift: ({ dx, dy }) => [dy, 0, dx],
    reach: ['left', 'right', 'front', 'back'],
    ends: ([left, , right]) => [
      [left, 0, 0],
      [right, 0, 0],
    ],
    screen: (s) => [
      [s.x_centre - s.width / 2, 0, 0],
      [s.x_centre + s.width / 2, 0, 0],
    ],
    turned: (camera) => camera.pan,
    face: (emitter) => (emitter.shape === 'rect' || emitter.shape === 'window' ? emitter.width : USUAL_FACE),
    figure: (s) => {
      const [cx, cy] = at([s.x, 0, s.z])
      const tall = s.height * sheet.scale
      return [oval(cx, cy, 0.066 * tall, 0.13 * tall), oval(cx, cy, 0.06 * tall, 0.06 * tall)]
    },
    named: sheet.scale > 34,
  }
}

/** From the side: z to the right, height upward. */
export function fromTheSide(sheet: Sheet): Projection {
  const at = ([, y, z]: readonly number[]): Point => [sheet.z(z), sheet.y(y)]
  return {
    view: 'side view',
    scale: sheet.scale,
    axes: ['z', 'y'],
    at,
    shift: ({ dx, dy }) => [0, dy, dx],
    reach: ['up'],
    ends: ([, low, , high]) => [
      [0, Math.max(low, 0), 0],
      [0, high, 0],
    ],
    screen: (s) => [
      [0, s.bottom, 0],
      [0, s.bottom + s.height, 0],
    ],
    turned: (camera) => camera.tilt,
    face: (emitter) => (emitter.shape === 'rect' || emitter.shape === 'window' ? emitter.height : USUAL_FACE),
    figure: (s) => [
      path(
        PROFILE.map(([forward, up]) => at([0, upOf(s, up), s.z + (forward + lap(s, forward, up)) * s.height])),
        true,
      ),
    ],
    named: false,
  }
}

/** Where a place is after a drag: on whole centimetres, not under the floor; what isn't seen here stays as it was. */
export function moved(view: Projection, place: readonly number[], by: Move): Place {
  const [dx, dy, dz] = view.shift(by)
  const [x, y, z] = place
  const up = view.axes.includes('y') ? round(Math.max(0, y + dy)) : y
  return [view.axes.includes('x') ? round(x + dx) : x, up, round(z + dz)]
}

const oval = (cx: number, cy: number, rx: number, ry: number) =>
  `M${cx - rx} ${cy}a${rx} ${ry} 0 1 0 ${2 * rx} 0a${rx} ${ry} 0 1 0 ${-2 * rx} 0Z`

/** Of somebody seated, how far knees and shins are before the mark, as a share of the height. */
const lap = (s: Subject, forward: number, up: number) =>
  s.posture === 'seated' && up < 0.3 ? 0.24 : s.posture === 'seated' && up < 0.5 && forward > 0 ? 0.2 : 0

/** An upright person from the side, in shares of the height: forward of the mark, up. */
const PROFILE = [
  [-0.05, 0],
  [-0.06, 0.02],
  [0.09, 0.02],
  [0.09, 0],
  [0.03, 0.03],
  [0.055, 0.27],
  [0.065, 0.48],
  [0.06, 0.62],
  [0.075, 0.76],
  [0.05, 0.83],
  [0.03, 0.86],
  [0.055, 0.885],
  [0.066, 0.915],
  [0.055, 0.965],
  [0.0, 1.0],
  [-0.06, 0.965],
  [-0.072, 0.92],
  [-0.045, 0.87],
  [-0.06, 0.82],
  [-0.075, 0.72],
  [-0.06, 0.6],
  [-0.085, 0.5],
  [-0.06, 0.27],
  [-0.045, 0.03],
]
