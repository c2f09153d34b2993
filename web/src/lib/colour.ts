/** Linear Rec.709 reflectance to and from the page's own #rrggbb (IEC 61966-2-1). */
const toByte = (x: number) => {
  const c = Math.max(0, Math.min(1, x))
  return Math.round(255 * (c <= 0.0031308 ? 12.92 * c : 1.055 * c ** (1 / 2.4) - 0.055))
}
const toLinear = (byte: number) => {
  const c = byte / 255
  return c <= 0.04045 ? c / 12.92 : ((c + 0.055) / 1.055) ** 2.4
}

export const hexOf = (rgb: readonly number[]) => `#${rgb.map((x) => toByte(x).toString(16).padStart(2, '0')).join('')}`

export const reflectanceOf = (hex: string) => [1, 3, 5].map((i) => Number(toLinear(parseInt(hex.slice(i, i + 2), 16)).toFixed(3)))

/** Mean linear colour of a square of pixels, from their RGBA bytes. */
export function meanColour(bytes: Uint8ClampedArray): number[] {
  const sum = [0, 0, 0]
  for (let i = 0; i < bytes.length; i += 4) for (let c = 0; c < 3; c++) sum[c] += toLinear(bytes[i + c])
  return sum.map((s) => Number((s / (bytes.length / 4)).toFixed(3)))
}
