<script lang="ts">
  /** Spill place by place: the figure, its values, and for the chosen place the surfaces that send it. */
  import SpillFigure from './SpillFigure.svelte'
  import Term from '../../parts/Term.svelte'
  import { prefs } from '../../lib/prefs.svelte'
  import { session } from '../../lib/session.svelte'
  import type { Plan } from '../../lib/types'
  import { showLight } from '../../lib/units'
  let { plan }: { plan: Plan } = $props()

  const probes = $derived((session.ghost?.evaluation ?? session.evaluation)?.check.spill.probes ?? [])
  let name = $state('')
  const chosen = $derived(
    probes.find((p) => p.name === name) ??
      [...probes].filter((p) => p.framed && p.kind !== 'back' && p.kind !== 'top').sort((a, b) => (b.share ?? 0) - (a.share ?? 0))[0],
  )
  const lux = (rgb: readonly number[]) => 0.2126 * rgb[0] + 0.7152 * rgb[1] + 0.0722 * rgb[2]
  const most = $derived(Math.max(1, ...(chosen?.sources.map((s) => s.share) ?? [])))
</script>

{#if probes.length}
  <section aria-label="Spill" class="mt-3">
    <h2 class="font-semibold"><Term term="spill">Spill</Term>, share of the key channel's light</h2>
    <div class="mt-1 flex gap-4">
      <SpillFigure {plan} {probes} chosen={chosen?.name ?? ''} />
      <div class="min-w-0 flex-1">
        <ul>
          {#each probes as probe (probe.name)}
            <li class="border-t border-line">
              <button
                type="button"
                class="flex w-full cursor-pointer justify-between py-[3px] text-left hover:text-primary {chosen?.name === probe.name
                  ? 'text-primary'
                  : probe.framed
                    ? ''
                    : 'text-quiet'}"
                aria-pressed={chosen?.name === probe.name}
                onclick={() => (name = probe.name)}
              >
                <span>{probe.name}{probe.framed ? '' : ', not in the picture'}</span>
                <span>{probe.share === null ? 'dark' : `${probe.share.toFixed(1)} %`}</span>
              </button>
            </li>
          {/each}
        </ul>
      </div>
    </div>
    {#if chosen}
      <h3 class="mt-2 font-semibold">{chosen.name}: who sends it</h3>
      <ul>
        {#each chosen.sources.filter((s) => Math.abs(s.share) >= 0.05) as source (source.surface)}
          <li class="flex items-center gap-3 border-t border-line">
            <span class="w-44">{source.surface}</span>
            <svg width="150" height="8" class="flex-1" aria-hidden="true"
              ><rect width={Math.max(0, (150 * source.share) / most)} height="8" fill="var(--screen-{plan.screen.hue})" /></svg
            >
            <span class="w-20 text-right">{source.share.toFixed(1)} points</span>
          </li>
        {/each}
        {#if Math.abs(chosen.lamps) >= 0.05}
          <li class="flex items-center gap-3 border-t border-line text-quiet">
            <span class="flex-1">the lamps' own colour, no spill</span><span>{chosen.lamps.toFixed(1)} points</span>
          </li>
        {/if}
      </ul>
      <p class="label-text mt-1">{showLight(lux(chosen.light), prefs.light)} arrive there in all.</p>
    {/if}
  </section>
{/if}
