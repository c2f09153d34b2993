import { onDestroy, untrack } from 'svelte'

/**
 * What is asked of the server while a page is open: the answer to the newest question, and never an older one's;
 * busy while one is under way, the server's own words where it fails.
 */
export class Resource<T> {
  value = $state.raw<T | null>(null)
  busy = $state(false)
  error = $state('')

  private newest = 0
  private flight: AbortController | undefined
  private timer: ReturnType<typeof setTimeout> | undefined

  /**
   * Ask, once hands have rested for `rest` ms. Gives the answer, or null where it failed or is no longer wanted. What
   * was asked before is called off: the server ends the work of a reader who has left. `meanwhile` shows what is
   * known before the answer is there.
   */
  async ask(question: (signal: AbortSignal, meanwhile: (value: T) => void) => Promise<T>, rest = 0): Promise<T | null> {
    const own = this.callOff()
    if (rest > 0) {
      await new Promise((done) => (this.timer = setTimeout(done, rest)))
      if (own !== this.newest) return null
    }
    this.busy = true
    const { signal } = (this.flight = new AbortController())
    const meanwhile = (early: T) => {
      if (own === this.newest) this.value = early
    }
    try {
      // What a question reads is no reason to ask it again.
      const value = await untrack(() => question(signal, meanwhile))
      if (own !== this.newest) return null
      this.value = value
      this.error = ''
      return value
    } catch (error) {
      if (own !== this.newest) return null
      this.error = (error as Error).message
      return null
    } finally {
      if (own === this.newest) this.busy = false
    }
  }

  /** Forget the answer, and whatever is still under way. */
  clear() {
    this.callOff()
    this.value = null
    this.busy = false
    this.error = ''
  }

  private callOff(): number {
    clearTimeout(this.timer)
    this.flight?.abort()
    this.newest += 1
    return this.newest
  }
}

/** For a component: once it is left, what it asked is called off. */
export function opened<T>(): Resource<T> {
  const resource = new Resource<T>()
  onDestroy(() => resource.clear())
  return resource
}
