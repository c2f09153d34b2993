/** Numbers as people write them: comma or point, fractions, centimetres, feet and inches, 1/50, f/2.8, their unit behind. */
import type { LengthUnit } from './units'

const INCH = 0.0254
const FRACTIONS: Record<string, string> = {
  '¼': '1/4',
  '½': '1/2',
  '¾': '3/4',
  '⅛': '1/8',
  '⅜': '3/8',
  '⅝': '5/8',
  '⅞': '7/8',
  '⅓': '1/3',
  '⅔': '2/3',
}
const NUMBER = String.raw`\d+(?:\.\d*)?(?:\s+\d+/\d+)?|\.\d+|\d+/\d+`
const FEET = new RegExp(String.raw`^(${NUMBER})\s*(?:'|ft|feet|foot)\s*(?:(${NUMBER})\s*(?:"|in|inch|inches)?)?$`)
const INCHES = new RegExp(String.raw`^(${NUMBER})\s*(?:"|in|inch|inches)$`)
const FEET_AND_INCHES = /^(\d+)\s+(\d+(?:\.\d+)?(?:\s+\d+\/\d+)?)$/
const METRIC = new RegExp(String.raw`^(${NUMBER})\s*(mm|cm|m)?$`)
const METRES: Record<string, number> = { mm: 0.001, cm: 0.01, m: 1 }

/** Primes, quotes, minus signs and fractions in one way; without the sign, which is told apart. */
function plainText(text: string): [sign: number, rest: string] {
  const plain = text
    .trim()
    .toLowerCase()
    .replace(/[−–]/g, '-')
    .replace(/(\d),(\d)/g, '$1.$2')
    .replace(/^,/, '.')
    .replace(/''|[″”“„]/g, '"')
    .replace(/[′’‘]/g, "'")
    .replace(/[¼½¾⅛⅜⅝⅞⅓⅔]/g, (sign) => ` ${FRACTIONS[sign]}`)
    .trim()
  return plain.startsWith('-') ? [-1, plain.slice(1).trim()] : [1, plain]
}

/** "8", "8.5", "1/2" or "8 1/2"; NaN else. */
function value(text: string): number {
  const parts = text.trim().split(/\s+/)
  const read = (part: string) => {
    const [over, under] = part.split('/')
    return under === undefined ? Number(over) : Number(over) / Number(under)
  }
  return parts.reduce((sum, part) => sum + read(part), 0)
}

/** A plain number; what stands behind it may be its own unit, before it "f/" or "ISO". NaN when unreadable. */
export function readNumber(text: string, unit = ''): number {
  const [sign, plain] = plainText(text)
  const rest = plain.replace(/^(f\s*\/?|iso)\s*(?=[\d.])/, '')
  const bare = unit && rest.endsWith(unit.toLowerCase()) ? rest.slice(0, -unit.length).trim() : rest
  return new RegExp(`^(?:${NUMBER})$`).test(bare) ? sign * value(bare) : NaN
}

/** Metres; a number alone is in the unit that the person chose, and two alone are feet and inches then. */
export function readLength(text: string, unit: LengthUnit): number {
  const [sign, plain] = plainText(text)
  const feet = FEET.exec(plain) ?? (unit === 'ft' ? FEET_AND_INCHES.exec(plain) : null)
  if (feet) return sign * (value(feet[1]) * 12 + (feet[2] ? value(feet[2]) : 0)) * INCH
  const inches = INCHES.exec(plain)
  if (inches) return sign * value(inches[1]) * INCH
  const metric = METRIC.exec(plain)
  if (!metric) return NaN
  return sign * value(metric[1]) * (metric[2] ? METRES[metric[2]] : unit === 'ft' ? 12 * INCH : 1)
}

/** How many of it make a second: 50 for "50", "1/50", "1/50 s" and "0.02 s". */
export function readShutter(text: string): number {
  const [sign, plain] = plainText(text)
  const bare = plain.replace(/\s*s(ec)?$/, '')
  const read = readNumber(bare)
  const seconds = bare !== plain || bare.includes('/')
  return sign * (seconds ? 1 / read : read)
}
