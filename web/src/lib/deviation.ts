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

/** sRGB bytes of a deviation in points of signal, on a scale that ends at `reach`. */
export function deviationColour(percent: number, reach: number): [number, number, number] {
  const share = Math.max(-1, Math.min(1, percent / reach))
  const end = share < 0 ? BELOW : ABOVE
  const t = Math.abs(share)
  return oklabToRgb(NEUTRAL.map((n, i) => n + (end[i] - n) * t) as Lab)
}

export const css = (rgb: number[]) => `rgb(${rgb.join(' ')})`

/** OKLab to sRGB bytes (B. Ottosson, 2020). */
export function oklabToRgb([L, a, b]: Lab): [number, number, number] {
  const l = (L + 0.3963377774 * a + 0.2158037573 * b) ** 3
  const m = (L - 0.1055613458 * a - 0.0638541728 * b) ** 3
  const s = (L - 0.0894841775 * a - 1.291485548 * b) ** 3
  const linear = [
    4.0767416621 * l - 3.3077115913 * m + 0.2309699292 * s,
    -1.2684380046 * l + 2.6097574011 * m - 0.3413193965 * s,
    -0.0041960863 * l - 0.7034186147 * m + 1.707614701 * s,
  ]
  return linear.map((x) => {
    const c = Math.max(0, Math.min(1, x))
    return Math.round(255 * (c <= 0.0031308 ? 12.92 * c : 1.055 * c ** (1 / 2.4) - 0.055))
  }) as [number, number, number]
}
