/** Showing and reading quantities in the units a person chose. The plan itself is always metric. */
export type LengthUnit = 'm' | 'ft'
export type LightUnit = 'lx' | 'fc'

const INCHES_PER_METRE = 1 / 0.0254
const QUARTERS = ['', '¼', '½', '¾']
const LUX_PER_FOOT_CANDLE = 10.76391042

/** A number with a true minus, and none before a zero; a dash where there is none. */
export function plain(value: number | null | undefined, digits: number): string {
  if (value == null) return '–'
  const text = value.toFixed(digits)
  return Number(text) === 0 ? text.replace('-', '') : text.replace('-', '−')
}

/** A difference: with its sign, unless it is nothing. */
export function signed(value: number, digits: number): string {
  const text = plain(value, digits)
  return value > 0 && Number(text) !== 0 ? `+${text}` : text
}

export function showLength(metres: number, unit: LengthUnit, digits = 2): string {
  if (unit === 'm') return `${plain(metres, digits)} m`
  const quarters = Math.round(Math.abs(metres) * INCHES_PER_METRE * 4)
  const sign = metres < 0 && quarters > 0 ? '−' : ''
  const inches = Math.floor((quarters % 48) / 4)
  return `${sign}${Math.floor(quarters / 48)}′ ${inches}${QUARTERS[quarters % 4]}″`
}

export function showLight(lux: number, unit: LightUnit): string {
  return unit === 'lx' ? `${lux.toFixed(0)} lx` : `${(lux / LUX_PER_FOOT_CANDLE).toFixed(1)} fc`
}

/** 1/100 s, or 0.5 s when long. */
export function showShutter(seconds: number): string {
  return seconds < 0.4 ? `1/${plain(1 / seconds, 0)} s` : `${plain(seconds, 1)} s`
}

export function showValue(value: number | null, unit: string, digits: number, length: LengthUnit, light: LightUnit): string {
  if (value === null) return '–'
  if (unit === 'm') return showLength(value, length, digits)
  if (unit === 'lx') return showLight(value, light)
  const number = plain(value, digits)
  return unit === '°' ? `${number}°` : `${number} ${unit}`.trim()
}
