/** The trade's words with their explanations, fetched once. */
import { glossary as fetchGlossary } from './api'

const terms = $state<Record<string, string>>({})
let asked = false

export function meaning(term: string): string {
  if (!asked) {
    asked = true
    void fetchGlossary().then(
      (found) => found.forEach(({ term: t, means }) => (terms[t] = means)),
      () => (asked = false),
    )
  }
  return terms[term] ?? ''
}

/** The term of the field that has the focus: its meaning stands below the fields. */
let described = $state<string | null>(null)
export const describe = (term: string | null) => void (described = term)
/** Only after a click that took the focus away is done: what it is on must not move under it. */
export const undescribe = (term: string) => setTimeout(() => described === term && describe(null), 300)
export const describedTerm = () => described

const MOST = 5
const pattern = (term: string) => new RegExp(`(?<![\\w:])${term.toLowerCase().replace(/[.:/]/g, '\\$&')}s?(?![\\w:])`)

/** Which of the words stand in a text, the longest first: "key light" and not "key" too. */
export function termsIn(text: string): string[] {
  meaning('')
  let left = text.toLowerCase()
  const found: string[] = []
  for (const term of Object.keys(terms).sort((a, b) => b.length - a.length)) {
    const at = pattern(term)
    if (!at.test(left)) continue
    found.push(term)
    left = left.replace(new RegExp(at, 'g'), ' ')
  }
  return found.slice(0, MOST)
}

/** The text in pieces; beside each that is a term, which. A term is explained where it stands first. */
export function cutAtTerms(text: string): [piece: string, term: string | null][] {
  let pieces: [string, string | null][] = [[text, null]]
  for (const term of termsIn(text))
    pieces = pieces.flatMap(([piece, known]): [string, string | null][] => {
      const found = known ? null : pattern(term).exec(piece.toLowerCase())
      if (!found) return [[piece, known]]
      const end = found.index + found[0].length
      return [
        [piece.slice(0, found.index), null],
        [piece.slice(found.index, end), term],
        [piece.slice(end), null],
      ]
    })
  return pieces.filter(([piece]) => piece)
}
