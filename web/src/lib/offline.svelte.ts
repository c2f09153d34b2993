/** What is read while the server is away, and of when that is. */
class Offline {
  /** The time of what is shown, where it comes from the browser's own store; empty while the server answers. */
  keptAt = $state('')
}

export const offline = new Offline()

/** Where the browser allows it (this machine, or TLS): keep the log readable. */
export function keepReadable() {
  if (!('serviceWorker' in navigator) || !window.isSecureContext) return
  navigator.serviceWorker.addEventListener('message', (event: MessageEvent<{ keptAt: string | null }>) => {
    const at = Date.parse(event.data.keptAt ?? '')
    const words = new Intl.DateTimeFormat([], { dateStyle: 'short', timeStyle: 'short' })
    offline.keptAt = Number.isNaN(at) ? 'an earlier time' : words.format(at)
  })
  void navigator.serviceWorker.register('/sw.js').catch(() => {})
}
