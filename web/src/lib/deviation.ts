/** The colour of a deviation from the target: neutral at zero, amber above, violet below.
 *
 * Lightness rises evenly from below to above, so that the map also reads without colour vision and in
 * print; the two hues lie on the axis that all common forms of colour blindness keep apart.
 */
/** Reaches of the scale in points of signal; the smallest that holds nearly all is taken. */
const REACHES = [5, 10, 20, 40]

export function reachFor(values: number[]): number {
  const sorted = values.map(Math.abs).sort((a, b) => a - b)
  const most = sorted[Math.floor(0.97 * (sorted.length - 1))] ?? 0
  return REACHES.find((reach) => most <= reach) ?? REACHES[REACHES.length - 1]
}

type Lab = [number, number, number]
const BELOW: Lab = [0.34, 0.055, -0.13]
const NEUTRAL: Lab = [0.6, 0, 0]
const ABOVE: Lab = [0.86, 0.045, 0.13]

/** The CSS colour of a deviation in points of signal, on a scale that ends at `reach`. */
export function deviationColour(percent: number, reach: number): string {
  const share = Math.max(-1, Math.min(1, percent / reach))
  const end = share < 0 ? BELOW : ABOVE
  return `oklab(${NEUTRAL.map((n, i) => (n + (end[i] - n) * Math.abs(share)).toFixed(4)).join(' ')})`
}

/** Steps of the scale from end to end: finer than a screen shows. */
const STEPS = 255
let inks: Uint32Array | undefined

/** The same as a pixel has it, red in its lowest byte: thousands are wanted at every step of a drag. */
export function deviationInk(percent: number, reach: number): number {
  inks ??= pixelsOf(Array.from({ length: STEPS }, (_, i) => deviationColour((2 * i) / (STEPS - 1) - 1, 1)))
  const share = Math.max(-1, Math.min(1, percent / reach))
  return inks[Math.round(((share + 1) * (STEPS - 1)) / 2)]
}

/** What the browser makes of CSS colours. */
function pixelsOf(colours: string[]): Uint32Array {
  const canvas = document.createElement('canvas')
  canvas.width = colours.length
  canvas.height = 1
  const context = canvas.getContext('2d', { willReadFrequently: true })!
  colours.forEach((colour, i) => {
    context.fillStyle = colour
    context.fillRect(i, 0, 1, 1)
  })
  return new Uint32Array(context.getImageData(0, 0, colours.length, 1).data.buffer)
}
