<script lang="ts">
  /** One finding: what is so, by how much against which limit, why, and what would change it. */
  import Term from '../parts/Term.svelte'
  import { termsIn } from '../lib/glossary.svelte'
  import State from '../parts/State.svelte'
  import { prefs } from '../lib/prefs.svelte'
  import { session } from '../lib/session.svelte'
  import { say } from '../lib/say'
  import { STATE_OF, type Finding, type Remedy } from '../lib/types'
  import { showValue } from '../lib/units'
  /** `beneath`: a cause, under the damage that it adds to. */
  let { finding, open, toggle, beneath = false }: { finding: Finding; open: boolean; toggle: () => void; beneath?: boolean } = $props()

  const show = (value: number | null) => showValue(value, finding.unit, finding.digits, prefs.length, prefs.light)
  const effect = (remedy: Remedy) =>
    remedy.outcome === 'does-not-apply'
      ? `${finding.measure}: no longer a question`
      : `${finding.measure} ${show(remedy.before)} → ${show(remedy.after)}`
  const whose = $derived(finding.who ? `${finding.who}: ` : '')
  const waiting = $derived(session.remediesAre !== 'here')
  /** The trade's words in it, each with its meaning. */
  const words = $derived(open ? termsIn(`${say(finding.told, prefs)} ${finding.why} ${finding.measure}`) : [])
  const id = $props.id()
</script>

<li class="border-b border-line" class:pl-6={beneath}>
  <button
    type="button"
    class="flex w-full cursor-pointer items-start gap-3 py-2 text-left hover:bg-base-200"
    aria-expanded={open}
    aria-controls={id}
    onclick={toggle}
  >
    <span class="w-14 shrink-0">
      {#if beneath}<span class="label-text">from</span>{:else}<State
          state={STATE_OF[finding.severity]}
        />{#if finding.severity !== 'fine'}<span class="label-text block">{finding.stage}</span>{/if}{/if}
    </span>
    <span class="flex-1" class:font-semibold={finding.severity === 'stop'}>{whose}{say(finding.told, prefs)}</span>
    {#if finding.limit !== 0 || finding.unit}
      <span class="label-text shrink-0 text-right whitespace-nowrap">limit {show(finding.limit)}</span>
    {/if}
  </button>
  {#if open}
    <div {id} class="pb-3 pl-[4.25rem]">
      <p class="text-ink">{finding.why}</p>
      {#if words.length}
        <p class="label-text mt-0.5">
          {#each words as word, i (word)}{i ? ', ' : ''}<Term term={word}>{word}</Term>{/each}
        </p>
      {/if}
      <p class="label-text mt-0.5">{finding.measure} {show(finding.value)} · {finding.source}. {finding.reason}</p>
      {#if finding.remedies.length}
        <ul class="mt-2 flex flex-col" class:opacity-50={waiting} aria-busy={waiting}>
          {#each finding.remedies as remedy (remedy.text)}
            {@const text = say(remedy.told, prefs)}
            <li class="flex items-start gap-3 border-t border-dotted border-line py-1.5">
              <span class="flex-1">
                {text}
                <span class="block text-quiet">
                  <span class="text-ink">{effect(remedy)}</span>{remedy.costs
                    ? `; ${say(remedy.costs, prefs)}`
                    : ''}{#if remedy.worsens.length}; worse for {remedy.worsens_words.join(', ')}{/if}{#if !remedy.gives}; costs more than
                    it gives{/if}
                </span>
              </span>
              <button
                type="button"
                class="btn btn-sm shrink-0"
                class:btn-active={session.ghost?.remedy.text === text}
                aria-label="Try: {text}"
                disabled={waiting}
                onclick={() => session.attempt({ text, changes: remedy.changes })}>Try</button
              >
            </li>
          {/each}
        </ul>
      {:else if finding.severity !== 'fine' && session.remediesAre === 'coming'}
        <p class="label-text mt-1" role="status">Looking for what would help</p>
      {:else if finding.severity !== 'fine' && session.remediesAre === 'here'}
        <p class="label-text mt-1">
          {finding.no_remedy_told ? say(finding.no_remedy_told, prefs) : 'No single change of this plan was found that helps here.'}
        </p>
      {/if}
    </div>
  {/if}
</li>
