<script lang="ts">
  /** A device on the set's network before it is let in. */
  import { enter } from '../lib/networkApi'

  let passcode = $state('')
  let error = $state('')
  let busy = $state(false)

  /** What the owner reads in the list of devices. */
  function name(): string {
    if (navigator.maxTouchPoints < 2) return 'Computer'
    return Math.min(screen.width, screen.height) > 600 ? 'Tablet' : 'Phone'
  }
  async function submit(event: SubmitEvent) {
    event.preventDefault()
    busy = true
    error = ''
    await enter(passcode, name()).catch((err: Error) => (error = err.message))
    busy = false
  }
</script>

<svelte:head><title>Passcode · Ausblick</title></svelte:head>
<main class="mx-auto flex min-h-dvh max-w-xs flex-col justify-center gap-4 px-4">
  <h1 class="text-figure font-light">Ausblick</h1>
  <form class="flex flex-col gap-3" onsubmit={submit}>
    <label class="text-quiet" for="passcode">The passcode stands on the screen of the machine that runs it.</label>
    <input
      id="passcode"
      class="input h-12 w-full text-center text-reading tracking-widest uppercase"
      autocomplete="one-time-code"
      autocapitalize="characters"
      spellcheck="false"
      maxlength="20"
      bind:value={passcode}
      required
    />
    <button type="submit" class="btn btn-primary h-12" disabled={busy}>Enter</button>
    {#if error}<p role="alert" class="text-primary">{error}</p>{/if}
  </form>
</main>
