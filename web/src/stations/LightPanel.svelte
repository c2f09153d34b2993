<script lang="ts">
  /** Screen light: the school and its target, and who lights the screen and the face, lamp by lamp. */
  import Choice from '../parts/Choice.svelte'
  import NumberField from '../parts/NumberField.svelte'
  import { prefs } from '../lib/prefs.svelte'
  import { session } from '../lib/session.svelte'
  import type { Plan } from '../lib/types'
  import { showLight } from '../lib/units'
  let { plan }: { plan: Plan } = $props()

  const SCHOOLS: [string, string][] = [['below-face', 'below the face'], ['mid-grey', 'mid-grey'], ['follow-plate', 'follow the plate'], ['away-from-edge', 'away from the edge'], ['custom', 'own level']]
  const TRACES: [string, string][] = [['luma', 'luma'], ['key-channel', 'key channel']]
  const map = $derived(session.evaluation?.map)
  const most = $derived(Math.max(1, ...(session.evaluation?.lamps.map((l) => l.screen_lux) ?? [])))
  const set = (path: string) => (value: unknown) => session.change([{ path, value }])

  function add() {
    const { screen, room } = plan
    const inside = Math.min(room.x_max - 0.4, screen.x_centre + screen.width / 2 + 0.5)
    const names = plan.lights.map((l) => l.id)
    let n = plan.lights.length + 1
    while (names.includes(`l${n}`)) n += 1
    const lamp = {
      id: `l${n}`, name: 'panel', role: 'screen', dimmer: 1, on: true, circuit: 'A', modifier: { kind: 'none' },
      fixture: { emitter: { shape: 'rect', width: 0.6, height: 0.6 }, flux_lm: 6000, beam: { kind: 'lambert' }, cct: plan.camera.white_balance_k, duv: 0, cri: 95, watts: 60 },
      position: [inside, screen.bottom + screen.height / 2, 2], aim: [screen.x_centre, screen.bottom + screen.height / 2, 0],
    }
    session.change([{ path: 'lights', value: [...plan.lights, lamp] }])
    session.selected = `light:${lamp.id}`
  }
</script>

<section aria-label="Screen light" class="border-b border-line pb-3">
  <div class="grid grid-cols-2 gap-x-6 gap-y-1.5 pt-2 max-sm:grid-cols-1">
    <Choice label="School" value={plan.targets.level_school} options={SCHOOLS} onchange={set('targets.level_school')} />
    <Choice label="Read on" value={plan.targets.level_trace} options={TRACES} onchange={set('targets.level_trace')} />
    {#if plan.targets.level_school === 'custom'}
      <NumberField label="Wanted level" unit="%" digits={0} step={1} min={0} max={110} value={plan.targets.screen_level} onchange={set('targets.screen_level')} />
    {:else}
      <p class="flex justify-between"><span class="label-text">Wanted</span><span>{map ? `${map.target_low.toFixed(0)} to ${map.target_high.toFixed(0)} %` : '–'}</span></p>
    {/if}
  </div>
  <table class="mt-2 w-full">
    <thead><tr class="label-text text-left"><th class="font-normal">Lamp</th><th class="font-normal" colspan="2">on the screen</th><th class="text-right font-normal">on the face</th></tr></thead>
    <tbody>
      {#each plan.lights as lamp, i (lamp.id)}
        {@const share = session.evaluation?.lamps.find((l) => l.id === lamp.id)}
        <tr class:text-quiet={!lamp.on}>
          <td><button type="button" class="cursor-pointer hover:text-primary" onclick={() => (session.selected = `light:${lamp.id}`)}>{i + 1} {lamp.name}</button></td>
          <td class="w-24"><svg width="90" height="8" aria-hidden="true"><rect width={(90 * (share?.screen_lux ?? 0)) / most} height="8" fill="var(--figure)" /></svg></td>
          <td class="text-right">{share ? showLight(share.screen_lux, prefs.light) : '–'}</td>
          <td class="text-right">{share ? showLight(share.face_lux, prefs.light) : '–'}</td>
        </tr>
      {:else}
        <tr><td colspan="4" class="py-2 text-quiet">No lamp yet. Two alike, one each side at half the screen's height, aimed across, is where most begin.</td></tr>
      {/each}
    </tbody>
  </table>
  <button type="button" class="plain mt-2" onclick={add}>Add a panel</button>
</section>
