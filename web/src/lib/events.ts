/** What other pages and devices changed, heard as it happens. */
import { PAGE } from './page'

const KINDS = ['setups', 'frames', 'kit', 'lists', 'productions', 'devices'] as const
/** `setup` null: of any of them. */
type Changed = { what: (typeof KINDS)[number]; setup: number | null }
type Hear = (changed: Changed) => void

const listeners: Hear[] = []
let source: EventSource | undefined

function tell(changed: Changed) {
  for (const hear of listeners) hear(changed)
}

function open() {
  let away = false
  source = new EventSource('/api/events')
  source.onmessage = (event) => {
    const changed = JSON.parse(event.data) as Changed & { by: string }
    if (changed.by !== PAGE) tell(changed)
  }
  source.onerror = () => (away = true)
  // What was changed while the server was away was not heard: everything is asked for again.
  source.onopen = () => {
    if (away) for (const what of KINDS) tell({ what, setup: null })
    away = false
  }
}

/** Listen until the returned function is called; the stream comes back by itself when the server was away. */
export function listen(hear: Hear): () => void {
  listeners.push(hear)
  if (!source) open()
  return () => {
    listeners.splice(listeners.indexOf(hear), 1)
    if (listeners.length === 0) {
      source?.close()
      source = undefined
    }
  }
}

/** The same for one kind of thing of one set-up. */
export const listenFor = (kinds: Changed['what'][], setup: number, hear: () => void) =>
  listen((changed) => kinds.includes(changed.what) && (changed.setup === null || changed.setup === setup) && hear())
