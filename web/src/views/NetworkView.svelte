<script lang="ts">
  /** The owner's page of the door on the set's network: open or closed, how to get in, who is in. */
  import Preferences from '../parts/Preferences.svelte'
  import Switch from '../parts/Switch.svelte'
  import { listen } from '../lib/events'
  import * as api from '../lib/networkApi'
  import { opened } from '../lib/resource.svelte'
  import type { NetworkState } from '../lib/types'

  const MAY = { look: 'to look', log: 'to look, tick lists and bring frames', all: 'to do everything but this page' }
  const state = opened<NetworkState>()
  const now = $derived(state.value)
  const refresh = () => void state.ask(api.network)
  $effect(() => {
    refresh()
    const end = listen((changed) => changed.what === 'devices' && refresh())
    const timer = setInterval(refresh, 10_000)
    return () => (end(), clearInterval(timer))
  })
  const ago = (seconds: number) => (seconds < 60 ? 'now' : `${Math.round(seconds / 60)} min ago`)
</script>

<svelte:head><title>The set's network · Ausblick</title></svelte:head>
<header class="flex h-11 items-center justify-between border-b border-line px-4">
  <h1 class="flex-1 text-body font-semibold"><a href="#/" class="hover:text-primary">Ausblick</a></h1>
  <Preferences />
</header>
<main class="mx-auto max-w-4xl px-4 py-8">
  <h2 class="mb-2 text-figure font-light">The set's network</h2>
  <p class="mb-4 max-w-prose text-quiet">
    Tablets and phones on the same network can look, log or work along, each by a passcode. Closed, nobody but this machine gets an answer;
    opened again, all passcodes are new.
  </p>
  {#if state.error}<p role="alert" class="mb-3 text-primary">{state.error}</p>{/if}
  {#if now && !now.served}
    <p>This page was not served by the program itself, so there is no door to open.</p>
  {:else if now}
    <div class="max-w-prose">
      <Switch label="Open to devices on this network" value={now.open} onchange={(open) => state.ask(() => api.setNetwork(open))} />
    </div>
    {#if now.open}
      <div class="mt-6 grid gap-8 md:grid-cols-[auto_1fr]">
        <img src="/api/network/qr.svg?{encodeURIComponent(now.urls[0])}" alt="The address as a code" class="w-52 bg-white" />
        <div>
          {#each now.urls as url (url)}<p class="text-reading break-all">{url}</p>{/each}
          <table class="table mt-4">
            <thead class="label-text"
              ><tr><th class="text-left font-normal">Passcode</th><th class="text-left font-normal">lets a device in</th></tr></thead
            >
            <tbody>
              {#each now.codes as code (code.role)}
                <tr class="border-t border-line">
                  <td class="w-40 py-1 text-reading tracking-wider">{code.passcode}</td>
                  <td class="py-1">{MAY[code.role]}</td>
                </tr>
              {/each}
            </tbody>
          </table>
          <p class="mt-4 max-w-prose text-quiet">
            The browser warns once that it does not know who made the certificate: this machine did, for itself. Go on where it offers to
            (often under “Advanced”), after comparing its SHA-256 if you want to be sure:
          </p>
          <p class="label-text mt-1 break-all">{now.fingerprint}</p>
        </div>
      </div>
      <h3 class="mt-8 mb-1 font-semibold">Devices</h3>
      <ul>
        {#each now.devices as device (device.id)}
          <li class="flex items-center gap-4 border-b border-line py-2">
            <span class="flex-1">{device.name} <span class="text-quiet">{device.address}, {MAY[device.role]}</span></span>
            <span class="label-text">{ago(device.seen_s)}</span>
            <button
              type="button"
              class="btn btn-sm"
              aria-label="Put out {device.name} at {device.address}"
              onclick={() => state.ask(() => api.putOut(device.id))}>Put out</button
            >
          </li>
        {:else}
          <li class="py-2 text-quiet">Nobody has come in yet.</li>
        {/each}
      </ul>
    {/if}
  {/if}
</main>
