/** What of a page stands in its address, so that reload, back and a link restore it: tab, part, frame. */
import { replace, router } from 'svelte-spa-router'

type Told = 'tab' | 'part' | 'frame'

/** What the address says; null where it says nothing. Reads as state: a page that asks is told anew. */
export const addressed = (name: Told) => new URLSearchParams(router.querystring).get(name)

/** Write it into the address, in the place of what stood there; null takes it away. */
export function address(name: Told, value: string | null) {
  const query = new URLSearchParams(router.querystring)
  if (query.get(name) === value) return
  if (value === null) query.delete(name)
  else query.set(name, value)
  const text = query.toString()
  void replace(router.location + (text ? `?${text}` : ''))
}
