/** Where the names of lamps stand in a view: those that would lie on each other stand one under the other. */

export interface Named {
  x: number
  y: number
  anchor: 'start' | 'middle'
  text: string
}

/** px of a letter, of a line, and how near lines may come. */
const LETTER = 5.5
const LINE = 12
const LEAST = 11

export function apart(names: Named[]): Named[] {
  const placed: Named[] = []
  for (const name of names) {
    let y = name.y
    let under: Named | undefined
    while ((under = placed.find((other) => touch({ ...name, y }, other)))) y = under.y + LINE
    placed.push({ ...name, y })
  }
  return placed
}

function touch(a: Named, b: Named): boolean {
  const [left, right] = ends(a)
  const [begin, end] = ends(b)
  return left < right && begin < end && Math.abs(a.y - b.y) < LEAST && left < end && begin < right
}

function ends({ x, anchor, text }: Named): [number, number] {
  const wide = LETTER * text.length
  return anchor === 'start' ? [x, x + wide] : [x - wide / 2, x + wide / 2]
}
