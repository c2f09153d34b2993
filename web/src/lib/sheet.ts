/** The drawing sheet: side section above, floor below, one scale and one z axis for both. */
import type { Plan } from './types'

export type Sheet = {
  width: number
  height: number
  scale: number
  /** px of a z in metres, both drawings. */
  z: (z: number) => number
  /** px of a height y in metres, section. */
  y: (y: number) => number
  /** px of an x in metres, floor; x to the right of the camera is up. */
  x: (x: number) => number
  /** Where the strip of dimensions between the drawings lies, px. */
  strip: number
  extent: { z0: number; z1: number; x0: number; x1: number; top: number }
}

const PAD = { left: 40, right: 24, top: 20, bottom: 16 }
const STRIP = 40

export type Shown = 'room' | 'set'
/** Round the set, m. */
const ROUND = 0.6

/** Everything placed, walls included, so that nothing is drawn off the sheet; or the set alone, as large as it can be. */
export function extentOf(plan: Plan, shown: Shown = 'room') {
  const places = plan.lights.filter((l) => l.fixture.emitter.shape !== 'sun').map((l) => l.position)
  const points = [...places, [plan.camera.x, plan.camera.y, plan.camera.z]]
  if (plan.subject) points.push([plan.subject.x, plan.subject.height, plan.subject.z])
  const { room, screen } = plan
  const half = screen.width / 2
  const span = (i: number, low: number[], high: number[]) =>
    [Math.min(...low, ...points.map((p) => p[i])), Math.max(...high, ...points.map((p) => p[i]))] as const
  if (shown === 'set') {
    const [z0, z1] = span(2, [0], [screen.floor_run])
    const [x0, x1] = span(0, [screen.x_centre - half], [screen.x_centre + half])
    const [, top] = span(1, [0], [screen.bottom + screen.height])
    return { z0: z0 - ROUND, z1: z1 + ROUND, x0: x0 - ROUND, x1: x1 + ROUND, top: top + ROUND }
  }
  const [z0, z1] = span(2, [room.z_min, -0.2], [room.z_max])
  const [x0, x1] = span(0, [room.x_min, screen.x_centre - half], [room.x_max, screen.x_centre + half])
  const [, top] = span(1, [0], [room.height, screen.bottom + screen.height])
  return { z0, z1, x0, x1, top }
}

export function sheetOf(plan: Plan, width: number, height: number, shown: Shown = 'room'): Sheet {
  const extent = extentOf(plan, shown)
  const deep = extent.z1 - extent.z0
  const across = extent.x1 - extent.x0
  const roomy = height - PAD.top - PAD.bottom - STRIP
  const scale = Math.max(8, Math.min((width - PAD.left - PAD.right) / deep, roomy / (extent.top + across)))
  const left = PAD.left + (width - PAD.left - PAD.right - deep * scale) / 2
  const used = (extent.top + across) * scale + STRIP
  const first = PAD.top + Math.max(0, (height - PAD.top - PAD.bottom - used) / 2)
  const ground = first + extent.top * scale
  return {
    width,
    height,
    scale,
    z: (z) => left + (z - extent.z0) * scale,
    y: (y) => ground - y * scale,
    x: (x) => ground + STRIP + (extent.x1 - x) * scale,
    strip: ground + STRIP / 2,
    extent,
  }
}

export const path = (points: (readonly number[])[], closed = false) =>
  points.map(([x, y], i) => `${i ? 'L' : 'M'}${x.toFixed(1)} ${y.toFixed(1)}`).join('') + (closed ? 'Z' : '')
