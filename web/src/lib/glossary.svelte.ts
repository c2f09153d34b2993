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
