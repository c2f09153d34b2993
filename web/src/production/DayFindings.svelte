<script lang="ts">
  /** What stands against the production: the set-ups of its shots and its days, worst first, each with what helps. */
  import State from '../parts/State.svelte'
  import { prefs } from '../lib/prefs.svelte'
  import type { OpenProduction } from '../lib/production.svelte'
  import type { Production } from '../lib/productionApi'
  import { say } from '../lib/say'
  import { STATE_OF } from '../lib/types'
  let { open, document }: { open: OpenProduction; document: Production } = $props()

  const RANK = { stop: 0, fix: 1, consider: 2, fine: 3 }
  let opened = $state('')
  const title = (id: string | null) => document.shots.find((shot) => shot.id === id)?.title ?? ''
  const rows = $derived.by(() => {
    const state = open.state
    if (!state) return []
    const days = state.day.findings.map((found, i) => ({
      key: `d${i}`,
      severity: found.severity,
      told: found.told,
      where: [title(found.shot), document.days.length > 1 ? `day ${found.day + 1}` : ''].filter(Boolean).join(', '),
      why: `${found.why} ${found.source}.`,
      remedies: found.remedies,
      href: '',
    }))
    // A set-up that several shots share is told once.
    const seen: number[] = []
    const setups = state.shots.flatMap((shot, i) => {
      const setup = document.shots[i]?.setup
      if (!shot.told || shot.worst === 'consider' || (setup && seen.includes(setup))) return []
      if (setup) seen.push(setup)
      return [
        {
          key: `s${i}`,
          severity: shot.worst,
          told: shot.told,
          where: title(shot.shot),
          why: `${shot.open_findings} findings are open in this set-up.`,
          remedies: [],
          href: setup ? `#/setup/${setup}` : '',
        },
      ]
    })
    return [...setups, ...days].sort((a, b) => RANK[a.severity] - RANK[b.severity])
  })
</script>

<section aria-label="What stands against it" aria-busy={open.busy}>
  <h2 class="font-semibold">What stands against it</h2>
  <ul class="mt-1">
    {#each rows as row (row.key)}
      <li class="border-t border-line">
        <button
          type="button"
          class="grid w-full cursor-pointer grid-cols-[3.5rem_1fr] gap-x-2 py-1.5 text-left hover:bg-base-200"
          aria-expanded={opened === row.key}
          onclick={() => (opened = opened === row.key ? '' : row.key)}
        >
          <State state={STATE_OF[row.severity]} />
          <span>{say(row.told, prefs)}<span class="block text-quiet">{row.where}</span></span>
        </button>
        {#if opened === row.key}
          <div class="pb-2 pl-16">
            <p class="text-quiet">{row.why}</p>
            {#each row.remedies as remedy, i (i)}
              {#if remedy.changes.length}
                <button
                  type="button"
                  class="btn btn-sm mt-1 h-auto py-1 text-left"
                  onclick={() => open.change(remedy.changes.map((one) => ({ path: one.path, value: one.value })))}
                  >{say(remedy.told, prefs)}</button
                >
              {:else}<p class="mt-1">{say(remedy.told, prefs)}</p>{/if}
            {/each}
            {#if row.href}<a class="btn btn-sm mt-1" href={row.href}>Open the set-up</a>{/if}
          </div>
        {/if}
      </li>
    {:else}
      <li class="border-t border-line py-1.5 text-quiet">{open.state ? 'Nothing that was looked at.' : ''}</li>
    {/each}
  </ul>
</section>
