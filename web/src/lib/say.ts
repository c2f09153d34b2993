/** A sentence in words, in the units a person chose. The table and its kinds are the server's (core/sentences). */
import sentences from './sentences.generated.json'
import type { Sentence } from './types'
import { plain, showLength, showLight, showShutter, type LengthUnit, type LightUnit } from './units'

type Parameter = Sentence['parameters'][string]
export interface Units {
  length: LengthUnit
  light: LightUnit
}
const TEMPLATES: Record<string, string> = sentences
const PLACE = /\{(\w+)(?::(\w+))?\}/g

/** A page that stayed open while the server was renewed knows no words for what is new. */
const NEWER = 'The server says something new: load this page again to read it'

export function say(sentence: Sentence, units: Units): string {
  const template = TEMPLATES[sentence.id] ?? NEWER
  return template.replace(PLACE, (_, name: string, kind: string | undefined) => shown(sentence.parameters[name], kind, units))
}

function shown(value: Parameter, kind: string | undefined, units: Units): string {
  if (kind === undefined) return parts(value, units).join(', ')
  if (kind === 'list') return parts(value, units).join('; ')
  if (/^\d$/.test(kind)) return plain(value as number, Number(kind))
  return KINDS[kind](value, units)
}

function parts(value: Parameter, units: Units): string[] {
  if (Array.isArray(value)) return value.flatMap((one) => parts(one, units))
  return [typeof value === 'object' ? say(value, units) : String(value)]
}

const stops = (value: number | null) => {
  if (value === null) return '– stops'
  const size = Math.abs(value)
  return `${size.toFixed(1)} ${Math.abs(size - 1) < 0.05 ? 'stop' : 'stops'}`
}

function size([across, high]: [number, number], { length }: Units): string {
  return length === 'm' ? `${across.toFixed(2)} × ${high.toFixed(2)} m` : `${showLength(across, length)} × ${showLength(high, length)}`
}

const KINDS: Record<string, (value: Parameter, units: Units) => string> = {
  g: (value) => String(Number((value as number).toPrecision(6))).replace('-', '−'),
  m: (value, units) => showLength(value as number, units.length),
  m1: (value, units) => showLength(value as number, units.length, 1),
  size: (value, units) => size(value as [number, number], units),
  lx: (value, units) => showLight(value as number, units.light),
  shutter: (value) => showShutter(value as number),
  stops: (value) => stops(value as number),
}
