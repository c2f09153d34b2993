<script lang="ts">
  /** One finding: what is so, by how much against which limit, why, and what would change it. */
  import State from '../parts/State.svelte'
  import { prefs } from '../lib/prefs.svelte'
  import { session } from '../lib/session.svelte'
  import { say } from '../lib/say'
  import { STATE_OF, type Finding, type Remedy } from '../lib/types'
  import { showValue } from '../lib/units'
  let { finding, open, toggle }: { finding: Finding; open: boolean; toggle: () => void } = $props()

  const show = (value: number | null) => showValue(value, finding.unit, finding.digits, prefs.length, prefs.light)
  const effect = (remedy: Remedy) =>
    remedy.outcome === 'does-not-apply'
      ? `${finding.measure} ${show(remedy.before)}: no longer a question`
      : `${finding.measure} ${show(remedy.before)} → ${show(remedy.after)}`
  const id = $props.id()
</script>

<li class="border-b border-line">
  <button
    type="button"
    class="flex w-full cursor-pointer items-start gap-3 py-2 text-left hover:bg-base-200"
    aria-expanded={open}
    aria-controls={id}
    onclick={toggle}
  >
    <span class="w-14 shrink-0"><State state={STATE_OF[finding.severity]} /></span>
    <span class="flex-1" class:font-semibold={finding.severity === 'stop'}>{say(finding.told, prefs)}</span>
    {#if finding.limit !== 0 || finding.unit}
      <span class="label-text shrink-0 text-right whitespace-nowrap">limit {show(finding.limit)}</span>
    {/if}
  </button>
  {#if open}
    <div {id} class="pb-3 pl-[4.25rem]">
      <p class="text-ink">{finding.why}</p>
      <p class="label-text mt-0.5">{finding.measure} {show(finding.value)} · {finding.source}. {finding.reason}</p>
      {#if finding.remedies.length}
        <ul class="mt-2 flex flex-col">
          {#each finding.remedies as remedy (remedy.text)}
            {@const text = say(remedy.told, prefs)}
            <li class="flex items-start gap-3 border-t border-dotted border-line py-1.5">
              <span class="flex-1">
                {text}
                <span class="block text-quiet">
                  <span class="text-ink">{effect(remedy)}</span>{remedy.costs
                    ? `; ${say(remedy.costs, prefs)}`
                    : ''}{#if remedy.worsens.length}; worsens {remedy.worsens.map((w) => w.replace(/[.-]/g, ' ')).join(', ')}{/if}
                </span>
              </span>
              <button
                type="button"
                class="btn btn-sm shrink-0"
                class:btn-active={session.ghost?.remedy.text === text}
                aria-label="Try: {text}"
                onclick={() => session.attempt({ text, changes: remedy.changes })}>Try</button
              >
            </li>
          {/each}
        </ul>
      {:else if finding.severity !== 'fine'}
        <p class="label-text mt-1">No single change of this plan was found that helps here.</p>
      {/if}
    </div>
  {/if}
</li>
