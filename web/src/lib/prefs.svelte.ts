/** What a person chose for themselves; kept in the browser. */
import type { LengthUnit, LightUnit } from './units'

type Theme = 'set' | 'desk'
const KEY = 'ausblick-prefs'

class Prefs {
  length = $state<LengthUnit>('m')
  light = $state<LightUnit>('lx')
  theme = $state<Theme>('set')

  constructor() {
    try {
      const kept = JSON.parse(localStorage.getItem(KEY) ?? '{}')
      if (kept.length === 'ft') this.length = 'ft'
      if (kept.light === 'fc') this.light = 'fc'
      if (kept.theme === 'desk') this.theme = 'desk'
    } catch {
      // Nothing kept, or nothing readable: the defaults stand.
    }
    this.apply()
  }

  set(change: Partial<{ length: LengthUnit; light: LightUnit; theme: Theme }>) {
    Object.assign(this, change)
    localStorage.setItem(KEY, JSON.stringify({ length: this.length, light: this.light, theme: this.theme }))
    this.apply()
  }

  private apply() {
    document.documentElement.dataset.theme = this.theme
  }
}

export const prefs = new Prefs()
