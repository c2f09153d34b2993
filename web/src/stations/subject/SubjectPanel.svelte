<script lang="ts">
  /** Subject: who lights the face, spill place by place, distance, and what shines. */
  import { DISTANCE_SCHOOLS } from '../../lib/schools'
  import DistanceCurve from './DistanceCurve.svelte'
  import InThePicture from './InThePicture.svelte'
  import SpillPanel from './SpillPanel.svelte'
  import Choice from '../../parts/Choice.svelte'
  import NumberField from '../../parts/NumberField.svelte'
  import { prefs } from '../../lib/prefs.svelte'
  import { session } from '../../lib/session.svelte'
  import type { Plan } from '../../lib/types'
  import { showLight } from '../../lib/units'
  let { plan }: { plan: Plan } = $props()

  const wish = $derived(plan.targets.face_stops ?? null)
  const check = $derived(session.evaluation?.check)
  const ROLES = ['key', 'fill', 'back', 'screen', 'other'] as const
  const face = $derived(
    ROLES.map((role) => ({
      role,
      lux: plan.lights
        .filter((l) => l.role === role)
        .reduce((sum, l) => sum + (session.evaluation?.lamps.find((s) => s.id === l.id)?.face_lux ?? 0), 0),
    })).filter((row) => row.lux > 0.5),
  )
  const all = $derived(face.reduce((sum, row) => sum + row.lux, 0))
  const key = $derived(face.find((row) => row.role === 'key')?.lux ?? 0)
  const rest = $derived(all - key)
  const SHAPE: Record<string, string> = { sphere: 'as a ball', cylinder: 'as a rod', pane: 'as a pane, over its turns' }
</script>

{#if plan.subject}
  <section aria-label="Subject" class="border-b border-line pb-3">
    <InThePicture {plan} />
    <div class="pt-2">
      <Choice
        label="School of distance"
        value={plan.targets.distance_school}
        options={DISTANCE_SCHOOLS}
        onchange={(value) => session.change([{ path: 'targets.distance_school', value }])}
      />
      <Choice
        label="Level of the face"
        wide
        value={wish == null ? 'plate' : 'own'}
        options={[
          ['plate', 'as the plate wants'],
          ['own', 'my own'],
        ]}
        onchange={(kind) => session.change([{ path: 'targets.face_stops', value: kind === 'own' ? 0 : null }])}
      />
      {#if wish != null}
        <NumberField
          label="Face wanted"
          unit="stops over grey"
          digits={1}
          step={0.1}
          field="targets.face_stops"
          value={wish}
          onchange={(value) => session.change([{ path: 'targets.face_stops', value }])}
        />
      {/if}
    </div>
    {#if all > 0}
      <h2 class="mt-2 font-semibold">
        Light on the face, {showLight(check?.exposure.subject_lux ?? 0, prefs.light)}{rest > 0 && key > 0
          ? `, key to the rest ${(key / rest).toFixed(1)} : 1`
          : ''}
      </h2>
      <div class="mt-1 flex h-4 w-full overflow-hidden" aria-hidden="true">
        {#each face as row, i (row.role)}
          <span
            class="flex items-center justify-center overflow-hidden text-label text-base-100"
            {@attach (node) => {
              node.style.width = `${(100 * row.lux) / all}%`
              node.style.background = `oklch(${0.86 - 0.13 * i} 0 0)`
            }}
          ></span>
        {/each}
      </div>
      <ul class="mt-0.5 flex flex-wrap gap-x-4">
        {#each face as row (row.role)}<li class="label-text">{row.role} {((100 * row.lux) / all).toFixed(0)} %</li>{/each}
      </ul>
    {/if}
    <SpillPanel {plan} />
    <DistanceCurve {plan} />
    {#if check?.mirrored.length}
      <h2 class="mt-3 font-semibold">What shines</h2>
      <ul>
        {#each check.mirrored as thing (thing.name)}
          <li class="flex justify-between border-t border-line py-0.5">
            <span>{thing.name}, {SHAPE[thing.shape]}</span><span>{thing.share.toFixed(0)} % mirrors the screen</span>
          </li>
        {/each}
      </ul>
    {/if}
  </section>
{:else}
  <p class="pt-2 text-quiet">No figure in this plan.</p>
{/if}
