<script lang="ts">
  /** Who lights the screen and the face, lamp by lamp: switch it, or see it alone. */
  import { prefs } from '../../lib/prefs.svelte'
  import { session } from '../../lib/session.svelte'
  import type { Plan } from '../../lib/types'
  import { showLight } from '../../lib/units'
  let { plan }: { plan: Plan } = $props()

  const most = $derived(Math.max(1, ...(session.evaluation?.lamps.map((l) => l.screen_lux) ?? [])))
  const solo = $derived(session.ghost?.remedy.text ?? '')

  function alone(index: number) {
    const name = plan.lights[index].name
    const text = `Only ${name}`
    if (solo === text) return session.dropGhost()
    const changes = plan.lights.map((_, i) => ({ path: `lights[${i}].on`, value: i === index }))
    void session.attempt({ text, changes })
  }
</script>

<table class="table table-xs mt-2">
  <thead>
    <tr class="label-text text-left">
      <th class="font-normal">Lamp</th>
      <th class="font-normal" colspan="2">causes on the screen</th>
      <th class="text-right font-normal">on the face</th>
      <th class="font-normal"><span class="sr-only">Switch</span></th>
    </tr>
  </thead>
  <tbody>
    {#each plan.lights as lamp, i (lamp.id)}
      {@const share = session.evaluation?.lamps.find((l) => l.id === lamp.id)}
      <tr class="border-t border-line" class:text-quiet={!lamp.on}>
        <td class="py-0.5">
          <button
            type="button"
            data-opens-fields
            class="cursor-pointer text-left hover:text-primary"
            onclick={() => (session.selected = `light:${lamp.id}`)}>{i + 1} {lamp.name}</button
          >
        </td>
        <td class="w-20"
          ><svg width="76" height="8" aria-hidden="true"
            ><rect width={(76 * (share?.screen_lux ?? 0)) / most} height="8" fill="var(--figure)" /></svg
          ></td
        >
        <td class="text-right">{share ? showLight(share.screen_lux, prefs.light) : '–'}</td>
        <td class="text-right">{share ? showLight(share.face_lux, prefs.light) : '–'}</td>
        <td class="w-28 text-right whitespace-nowrap">
          <button
            type="button"
            class="btn btn-sm !px-1.5"
            aria-pressed={lamp.on}
            aria-label="{lamp.name} on"
            onclick={() => session.change([{ path: `lights[${i}].on`, value: !lamp.on }])}>{lamp.on ? 'on' : 'off'}</button
          >
          <button
            type="button"
            class="btn btn-sm !px-1.5"
            class:btn-active={solo === `Only ${lamp.name}`}
            aria-pressed={solo === `Only ${lamp.name}`}
            aria-label="{lamp.name} alone"
            onclick={() => alone(i)}>alone</button
          >
        </td>
      </tr>
    {:else}
      <tr
        ><td colspan="5" class="py-2 text-quiet"
          >No lamp yet. Two alike, one each side at half the screen's height, aimed across, is where most begin.</td
        ></tr
      >
    {/each}
  </tbody>
</table>
