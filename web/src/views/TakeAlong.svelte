<script lang="ts">
  /** The set-up as files: to print, to draw from, to open elsewhere. */
  import FileDown from '@lucide/svelte/icons/file-down'
  import Preferences from '../parts/Preferences.svelte'
  import { prefs } from '../lib/prefs.svelte'
  import { session } from '../lib/session.svelte'

  const at = (to: string, paper = 'a4') => `/api/setups/${session.id}/export/${to}?units=${prefs.length}&paper=${paper}`
  const FILES = [
    ['svg', 'Drawing', 'SVG, to a ruler’s scale'],
    ['gltf', '3-D scene', 'glTF: room, screen, lights, camera'],
    ['csv', 'Lights', 'CSV, a row each'],
    ['bundle', 'For who keys', 'zip: outline, samples, clean plate, all of the above'],
    ['plan', 'The plan itself', 'opens again here'],
  ] as const
</script>

<button type="button" class="btn btn-sm [anchor-name:--along]" popovertarget="along"
  ><span class="max-sm:sr-only">Take along</span><FileDown size={15} class="my-1 sm:hidden" /></button
>
<div
  id="along"
  popover
  class="dropdown dropdown-end mt-1 w-72 border border-line bg-base-100 p-3 text-ink shadow-xl [position-anchor:--along]"
  ontoggle={(event) => event.newState === 'open' && void session.save()}
>
  <p class="flex items-center justify-between gap-2">
    <span>Set sheet, to print</span>
    <span class="flex gap-1.5">
      {#each [['a4', 'A4'], ['letter', 'Letter']] as [paper, name] (paper)}
        <a class="btn btn-sm btn-primary" href={at('sheet', paper)} target="_blank" rel="noreferrer" aria-label="Set sheet, {name}"
          >{name}</a
        >
      {/each}
    </span>
  </p>
  <p class="label-text mt-1">Drawing to scale, stands, camera, levels, cautions and lists on two pages.</p>
  <ul class="mt-2">
    {#each FILES as [to, name, what] (to)}
      <li class="flex items-center justify-between gap-2 border-t border-line py-1.5">
        <span><span class="block">{name}</span><span class="label-text">{what}</span></span>
        <a class="btn btn-sm" href={at(to)} download aria-label="Save: {name}">Save</a>
      </li>
    {/each}
  </ul>
  <p class="mt-2 flex items-center justify-between border-t border-line pt-2 md:hidden">
    <span class="label-text">Shown in</span><Preferences />
  </p>
</div>
