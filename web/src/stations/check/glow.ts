/** Counts from the server (brightness bytes) drawn on a canvas in one ink. */
export function drawGlow(canvas: HTMLCanvasElement, base64: string, columns: number, rows: number, ink: [number, number, number]) {
  canvas.width = columns
  canvas.height = rows
  const context = canvas.getContext('2d')
  if (!context) return
  const bytes = Uint8Array.from(atob(base64), (c) => c.charCodeAt(0))
  const image = context.createImageData(columns, rows)
  for (let i = 0; i < bytes.length; i++) image.data.set([...ink, bytes[i]], i * 4)
  context.putImageData(image, 0, 0)
}

export const inkOf = (theme: string): [number, number, number] => (theme === 'desk' ? [30, 30, 30] : [235, 235, 235])
