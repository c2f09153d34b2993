/** Who this page is to the server: the owner at the machine, a device that was let in, or nobody yet. */
import type { Me } from './types'

class Who {
  /** Null until the server has said; 'stranger' before the passcode. */
  me = $state.raw<Me | 'stranger' | null>(null)

  get owner() {
    return this.me !== null && this.me !== 'stranger' && this.me.who === 'owner'
  }
  /** May this page change plans? */
  get changes() {
    return this.me === null || (this.me !== 'stranger' && this.me.role === 'all')
  }
  /** What goes with everything that changes something. */
  get csrf() {
    return this.me !== null && this.me !== 'stranger' ? this.me.csrf : ''
  }
}

export const who = new Who()
