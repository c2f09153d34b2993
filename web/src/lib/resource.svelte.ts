/**
 * What is asked of the server while a page is open: the answer to the newest question, and never an older one's;
 * busy while one is under way, the server's own words where it fails.
 */
export class Resource<T> {
  value = $state.raw<T | null>(null)
  busy = $state(false)
  error = $state('')

  private newest = 0
  private timer: ReturnType<typeof setTimeout> | undefined

  /** Ask, once hands have rested for `rest` ms. Gives the answer, or null where it failed or is no longer wanted. */
  async ask(question: () => Promise<T>, rest = 0): Promise<T | null> {
    const own = ++this.newest
    clearTimeout(this.timer)
    if (rest > 0) {
      await new Promise((done) => (this.timer = setTimeout(done, rest)))
      if (own !== this.newest) return null
    }
    this.busy = true
    try {
      const value = await question()
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
    this.newest += 1
    clearTimeout(this.timer)
    this.value = null
    this.busy = false
    this.error = ''
  }
}
