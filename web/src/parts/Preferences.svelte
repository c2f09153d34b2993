<script lang="ts">
  /** Units and theme; each button says what is on now. */
  import { prefs } from '../lib/prefs.svelte'
</script>

<span class="flex items-center gap-1.5">
  <button
    type="button"
    class="btn btn-sm"
    aria-label="Lengths in {prefs.length === 'm' ? 'metres' : 'feet and inches'}; change"
    onclick={() => prefs.set({ length: prefs.length === 'm' ? 'ft' : 'm' })}
  >
    {prefs.length === 'm' ? 'm' : 'ft'}
  </button>
  <button
    type="button"
    class="btn btn-sm"
    aria-label="Light in {prefs.light === 'lx' ? 'lux' : 'foot-candles'}; change"
    onclick={() => prefs.set({ light: prefs.light === 'lx' ? 'fc' : 'lx' })}
  >
    {prefs.light}
  </button>
  <button
    type="button"
    class="btn btn-sm"
    aria-label="Theme for the {prefs.theme}; change"
    onclick={() => prefs.set({ theme: prefs.theme === 'set' ? 'desk' : 'set' })}
  >
    {prefs.theme === 'set' ? 'dark' : 'light'}
  </button>
</span>
