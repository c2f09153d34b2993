/** The marks a person sets on a plate, as named points, and how they become a question to the server. */
import type { MarksBody } from '../../lib/types'

export type Group = 'horizon' | 'first' | 'second' | 'thing'
export type Point = { id: string; group: Group; label: string; u: number; v: number }

export const GROUPS: { id: Group; word: string; help: string }[] = [
  { id: 'horizon', word: 'Horizon', help: 'Two points on the horizon.' },
  { id: 'first', word: 'Receding lines', help: 'Two edges that run away in parallel: a wall above and below, a path left and right.' },
  { id: 'second', word: 'Lines of the other wall', help: 'Two edges at right angles to the first on the ground: they give the lens.' },
  { id: 'thing', word: 'Shadow', help: 'Foot and top of something upright, and the tip of its shadow.' },
]
const START: Record<Group, [string, number, number][]> = {
  horizon: [
    ['horizon left', 0.1, 0.45],
    ['horizon right', 0.9, 0.45],
  ],
  first: [
    ['line 1, near', 0.1, 0.25],
    ['line 1, far', 0.4, 0.38],
    ['line 2, near', 0.1, 0.8],
    ['line 2, far', 0.4, 0.58],
  ],
  second: [
    ['line 3, near', 0.9, 0.25],
    ['line 3, far', 0.6, 0.38],
    ['line 4, near', 0.9, 0.8],
    ['line 4, far', 0.6, 0.58],
  ],
  thing: [
    ['foot', 0.5, 0.75],
    ['top', 0.5, 0.5],
    ['tip of the shadow', 0.62, 0.82],
  ],
}

export const pointsOf = (group: Group): Point[] => START[group].map(([label, u, v], i) => ({ id: `${group}-${i}`, group, label, u, v }))

/** Pairs of point numbers that are drawn as lines. */
export const LINES: Record<Group, [number, number][]> = {
  horizon: [[0, 1]],
  first: [
    [0, 1],
    [2, 3],
  ],
  second: [
    [0, 1],
    [2, 3],
  ],
  thing: [
    [0, 1],
    [0, 2],
  ],
}

export function question(points: Point[], width: number, height: number, focal: number): MarksBody {
  const of = (group: Group) => points.filter((p) => p.group === group).map((p) => [p.u, p.v] as [number, number])
  const [h, a, b, t] = [of('horizon'), of('first'), of('second'), of('thing')]
  return {
    width,
    height,
    focal_mm_ff: focal,
    horizon: h.length ? [h[0], h[1]] : null,
    first: a.length
      ? [
          [a[0], a[1]],
          [a[2], a[3]],
        ]
      : null,
    second: b.length
      ? [
          [b[0], b[1]],
          [b[2], b[3]],
        ]
      : null,
    foot: t[0] ?? null,
    top: t[1] ?? null,
    tip: t[2] ?? null,
  }
}
