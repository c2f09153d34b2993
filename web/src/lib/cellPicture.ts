/** A grid of colours as a picture that the browser smooths when it is drawn larger. */

let sheet: CanvasRenderingContext2D | null = null

/** `ink`: each cell's pixel, red in its lowest byte and cover in its highest. */
export function cellPicture(columns: number, rows: number, ink: (column: number, row: number) => number): string {
  sheet ??= document.createElement('canvas').getContext('2d', { willReadFrequently: true })
  if (!sheet || !columns || !rows) return ''
  const image = new ImageData(columns, rows)
  const pixels = new Uint32Array(image.data.buffer)
  for (let row = 0; row < rows; row++) for (let column = 0; column < columns; column++) pixels[row * columns + column] = ink(column, row)
  sheet.canvas.width = columns
  sheet.canvas.height = rows
  sheet.putImageData(image, 0, 0)
  return sheet.canvas.toDataURL()
}
