import type { Framing } from './types'

export const FRAMINGS: [Framing, string][] = [
  ['full', 'full length'],
  ['knees', 'to the knees'],
  ['waist', 'to the waist'],
  ['chest', 'to the chest'],
  ['face', 'face'],
  ['hands', 'hands'],
]
