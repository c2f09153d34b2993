/** What of a page stands in its address, so that reload, back and a link restore it: tab, part, frame. */
import { replace, router } from 'svelte-spa-router'

/** Always written in this order, so that the same place has one address. */
const ORDER = ['tab', 'part', 'frame'] as const
type Told = (typeof ORDER)[number]

/** What the address says; null where it says nothing. Reads as state: a page that asks is told anew. */
export const addressed = (name: Told) => new URLSearchParams(router.querystring).get(name)

/** Write it into the address, in the place of what stood there; null takes it away. */
export function address(name: Told, value: string | null) {
  const query = new URLSearchParams(router.querystring)
  if (query.get(name) === value) return
  if (value === null) query.delete(name)
  else query.set(name, value)
  const told = ORDER.filter((one) => query.has(one)).map((one) => [one, query.get(one)!])
  const text = new URLSearchParams(told).toString()
  void replace(router.location + (text ? `?${text}` : ''))
}
