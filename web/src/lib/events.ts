/** What other devices changed, heard as it happens. */
type Changed = { what: 'setups' | 'frames' | 'kit' | 'lists' | 'devices'; setup: number | null }
type Hear = (changed: Changed) => void

const listeners: Hear[] = []
let source: EventSource | undefined

function open() {
  source = new EventSource('/api/events')
  source.onmessage = (event) => {
    const changed = JSON.parse(event.data) as Changed
    for (const hear of listeners) hear(changed)
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
