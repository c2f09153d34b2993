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
