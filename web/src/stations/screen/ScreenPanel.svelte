<script lang="ts">
  /** The screen: which colour, with the evidence; what is worn and held; and the rigging sheet. */
  import RiggingSheet from './RiggingSheet.svelte'
  import Wardrobe from './Wardrobe.svelte'
  import { peopleOf } from '../../lib/people'
  import { hexOf } from '../../lib/colour'
  import { screenAdvice } from '../../lib/screenApi'
  import { prefs } from '../../lib/prefs.svelte'
  import { Resource } from '../../lib/resource.svelte'
  import { session } from '../../lib/session.svelte'
  import type { Plan, ScreenAdvice } from '../../lib/types'
  import { showLength } from '../../lib/units'
  let { plan }: { plan: Plan } = $props()

  const asked = new Resource<ScreenAdvice>()
  const advice = $derived(asked.error ? null : asked.value)
  const CLOTH: Record<string, number[]> = { green: [0.06, 0.34, 0.1], blue: [0.05, 0.1, 0.4] }

  $effect(() => {
    const now = plan
    void asked.ask(() => screenAdvice(now), 200)
  })
  const screens = $derived([...new Set(advice?.evidence.map((r) => r.screen) ?? [])])
  const surfaces = $derived([...new Set(advice?.evidence.map((r) => r.surface) ?? [])])
  const at = (surface: string, screen: string) => advice?.evidence.find((r) => r.surface === surface && r.screen === screen)
  const colourOf = (name: string): readonly number[] =>
    name === 'skin'
      ? plan.subject!.skin
      : name === 'hair'
        ? plan.subject!.hair
        : ((plan.subject?.wardrobe.find((g) => g.name === name) ?? plan.subject?.props.find((p) => p.name === name))?.reflectance ?? [
            0, 0, 0,
          ])
  const facts = $derived(advice?.materials.find((m) => m.name === plan.screen.material))
  const takeFacts = () =>
    facts &&
    session.change((['gloss', 'transmittance', 'wrinkle_slope'] as const).map((key) => ({ path: `screen.${key}`, value: facts[key] })))
  const take = (hue: string) =>
    session.change([
      { path: 'screen.hue', value: hue },
      { path: 'screen.reflectance', value: CLOTH[hue] },
    ])
</script>

<section aria-label="Screen colour and rigging" class="border-b border-line pb-3">
  {#if advice}
    <div class="flex items-start justify-between gap-3 pt-2">
      <p>
        <span class="text-reading">Take {advice.advice.colour}.</span>
        {advice.advice.reasons.join('; ')}.
        {#if advice.advice.costs.length}<span class="text-quiet">Costs {advice.advice.costs.join(', ')}.</span>{/if}
      </p>
      {#if advice.advice.colour !== plan.screen.hue && CLOTH[advice.advice.colour]}
        <button type="button" class="btn btn-sm shrink-0" onclick={() => take(advice!.advice.colour)}>Make it {advice.advice.colour}</button
        >
      {/if}
    </div>
    {#if surfaces.length}
      <table class="table table-xs mt-2">
        <caption class="label-text pb-0.5 text-left"
          >How solid each surface keys before each screen; distance in colour, in brightness</caption
        >
        <thead
          ><tr class="label-text text-right"
            ><th class="text-left font-normal">Surface</th>{#each screens as screen (screen)}<th class="font-normal">{screen}</th
              >{/each}</tr
          ></thead
        >
        <tbody>
          {#each surfaces as surface (surface)}
            <tr class="border-t border-line text-right">
              <td class="py-0.5 text-left">
                <svg width="12" height="12" class="mr-1.5 inline" aria-hidden="true"
                  ><rect width="12" height="12" fill={hexOf(colourOf(surface))} stroke="var(--line)" /></svg
                >{surface}
              </td>
              {#each screens as screen (screen)}
                {@const row = at(surface, screen)}
                <td class:text-primary={row && row.matte < advice.solid}>
                  {#if row}<span class="font-semibold">{(100 * row.matte).toFixed(0)} %</span>
                    <span class="label-text">{row.chroma_distance.toFixed(2)}, {row.luma_distance.toFixed(0)}</span>{/if}
                </td>
              {/each}
            </tr>
          {/each}
        </tbody>
      </table>
    {/if}
    {#if facts}
      <div class="mt-3 flex items-start justify-between gap-3">
        <p>
          <span class="font-semibold capitalize">{facts.name}</span>: {facts.flat}; {facts.travels}; on the floor: {facts.floor}.
          {#if plan.screen.width > facts.widest}<span class="text-primary"
              >One piece is {showLength(facts.widest, prefs.length)} wide at most: this one needs a seam.</span
            >{/if}
        </p>
        {#if plan.screen.wrinkle_slope !== facts.wrinkle_slope || plan.screen.gloss !== facts.gloss || plan.screen.transmittance !== facts.transmittance}
          <button type="button" class="btn btn-sm shrink-0" onclick={takeFacts}>Use its usual values</button>
        {/if}
      </div>
    {/if}
    {#each peopleOf(plan) as person (person.thing)}<Wardrobe {person} />{/each}
    {#if advice.checks.length}
      <h2 class="mt-3 font-semibold">Before the day</h2>
      <ul>
        {#each advice.checks as check (check.thing + check.matter)}
          <li class="border-t border-line py-1">
            <span class="font-semibold">{check.thing}</span>
            {check.matter}.<span class="block text-quiet">Do: {check.do}. Test: {check.test}.</span>
          </li>
        {/each}
      </ul>
    {/if}
    <RiggingSheet {plan} sheet={advice.sheet} bag={advice.bag_kg} />
  {/if}
</section>
