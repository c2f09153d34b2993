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

const MOST = 5

/** Which of the words stand in a text, the longest first: "key light" and not "key" too. */
export function termsIn(text: string): string[] {
  meaning('')
  let left = text.toLowerCase()
  const found: string[] = []
  for (const term of Object.keys(terms).sort((a, b) => b.length - a.length)) {
    const at = new RegExp(`(?<![\\w:])${term.toLowerCase().replace(/[.:]/g, '\\$&')}s?(?![\\w:])`)
    if (!at.test(left)) continue
    found.push(term)
    left = left.replace(new RegExp(at, 'g'), ' ')
  }
  return found.slice(0, MOST)
}
