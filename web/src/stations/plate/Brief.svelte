<script lang="ts">
  /** The lighting brief: where the key stands, how hard, which ratio, and the levels by each school. */
  import { lightingBrief } from '../../lib/plateApi'
  import { prefs } from '../../lib/prefs.svelte'
  import { opened } from '../../lib/resource.svelte'
  import { session } from '../../lib/session.svelte'
  import type { Brief, Plan } from '../../lib/types'
  import { showLength } from '../../lib/units'
  let { plan }: { plan: Plan } = $props()

  const asked = opened<Brief>()
  const brief = $derived(asked.error ? null : asked.value)
  const say = (metres: number) => showLength(metres, prefs.length)
  const key = $derived(plan.lights.findIndex((l) => l.role === 'key'))
  const SCHOOL: Record<string, string> = {
    'below-face': 'below the face',
    'mid-grey': 'mid-grey',
    'follow-plate': 'follow the plate',
    'away-from-edge': 'away from the edge',
  }

  $effect(() => {
    const now = plan
    void asked.ask((signal) => lightingBrief(now, signal), 200)
  })
</script>

{#if brief}
  <h2 class="mt-3 font-semibold">Lighting brief</h2>
  {#each brief.words as line (line)}<p>{line}</p>{/each}
  {#if !brief.wrap_around}<p>Key to fill on the face {brief.ratio.toFixed(1)} : 1.</p>{/if}
  {#if brief.stands.length}
    <table class="table table-xs mt-2">
      <thead
        ><tr class="label-text text-right"
          ><th class="text-left font-normal">Key from the face</th><th class="font-normal">across</th><th class="font-normal">height</th><th
            class="font-normal">from screen</th
          ><th class="text-right font-normal">take it</th></tr
        ></thead
      >
      <tbody>
        {#each brief.stands as stand (stand.away)}
          <tr class="border-t border-line text-right">
            <td class="py-1 text-left">{say(stand.away)}</td><td>{say(stand.x)}</td><td>{say(stand.y)}</td><td>{say(stand.z)}</td>
            <td class="pl-2">
              {#if stand.problem}<span class="text-primary">{stand.problem}</span>
              {:else if key >= 0}<button
                  type="button"
                  class="btn btn-sm"
                  aria-label="Put the key {say(stand.away)} from the face"
                  onclick={() => session.change([{ path: `lights[${key}].position`, value: [stand.x, stand.y, stand.z] }])}
                  >Put it there</button
                >{/if}
            </td>
          </tr>
        {/each}
      </tbody>
    </table>
  {/if}
  <table class="table table-xs mt-2">
    <thead
      ><tr class="label-text text-right"
        ><th class="text-left font-normal">School</th><th class="font-normal">screen level</th><th class="text-right font-normal"
          >take it</th
        ></tr
      ></thead
    >
    <tbody>
      {#each brief.levels as target (target.school)}
        <tr class="border-t border-line text-right">
          <td class="py-1 text-left">{SCHOOL[target.school]}</td><td>{target.low.toFixed(0)} to {target.high.toFixed(0)} %</td>
          <td class="pl-2">
            <button
              type="button"
              class="btn btn-sm"
              class:btn-active={plan.targets.level_school === target.school}
              aria-pressed={plan.targets.level_school === target.school}
              aria-label="Use the school {SCHOOL[target.school]}"
              onclick={() => session.change([{ path: 'targets.level_school', value: target.school }])}>Use</button
            >
          </td>
        </tr>
      {/each}
    </tbody>
  </table>
{/if}
