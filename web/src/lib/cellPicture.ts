/** A grid of colours as a picture that the browser smooths when it is drawn larger. */
export function cellPicture(columns: number, rows: number, colour: (column: number, row: number) => string | null): string {
  const canvas = document.createElement('canvas')
  canvas.width = columns
  canvas.height = rows
  const ink = canvas.getContext('2d')
  if (!ink || !columns || !rows) return ''
  for (let row = 0; row < rows; row++)
    for (let column = 0; column < columns; column++) {
      const fill = colour(column, row)
      if (fill === null) continue
      ink.fillStyle = fill
      ink.fillRect(column, row, 1, 1)
    }
  return canvas.toDataURL()
}
