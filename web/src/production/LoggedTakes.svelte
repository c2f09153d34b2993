<script lang="ts">
  /** What is logged of a shot, newest first; a measured take says what has changed since the reference take. */
  import State from '../parts/State.svelte'
  import { prefs } from '../lib/prefs.svelte'
  import * as api from '../lib/productionApi'
  import { say } from '../lib/say'
  import { takeQueue } from '../lib/takeQueue.svelte'
  import { STATE_OF } from '../lib/types'
  let { production, shot, takes, changed }: { production: number; shot: api.Shot; takes: api.Take[]; changed: (takes: api.Takes) => void } =
    $props()

  const own = $derived(takes.filter((take) => take.shot === shot.id).reverse())
  const newest = $derived(own.find((take) => (take.frame !== null || take.camera !== null) && take.kind === 'take')?.key ?? '')
  let findings = $state.raw<api.TakeFinding[] | null>(null)
  let removed = $state('')
  $effect(() => {
    const key = newest
    findings = null
    if (key)
      void api
        .takeFindings(production, key)
        .then((found) => key === newest && (findings = found))
        .catch(() => null)
  })
  async function remove(key: string) {
    changed(await takeQueue.inTurn(() => api.deleteTake(production, key)))
    removed = key
  }
  async function bringBack() {
    changed(await takeQueue.inTurn(() => api.restoreTake(production, removed)))
    removed = ''
  }
  const told = (take: api.Take) =>
    take.kind === 'clean-plate' ? 'Clean plate' : take.kind === 'chart' ? 'Chart' : `Take ${take.number}, ${take.status}`
  const time = (at: string) => new Date(at).toLocaleTimeString([], { hour: '2-digit', minute: '2-digit' })
</script>

{#if findings}
  <ul aria-label="Since the reference take">
    {#each findings as finding (finding.id)}
      <li class="flex items-baseline gap-2 border-t border-line py-1.5">
        <State state={STATE_OF[finding.severity]} word={false} /><span>{say(finding.told, prefs)}</span>
      </li>
    {:else}
      <li class="border-t border-line py-1.5 text-quiet">The last take that can be compared is as the reference take.</li>
    {/each}
  </ul>
{/if}
{#if removed}
  <p role="status" class="flex items-center justify-between">
    <span>Removed.</span><button type="button" class="btn h-11" onclick={bringBack}>Bring it back</button>
  </p>
{/if}
<ul aria-label="Logged takes">
  {#each own as take (take.key)}
    <li class="flex items-center justify-between gap-3 border-t border-line py-1.5">
      <span class="min-w-0"
        >{told(take)}{take.variant ? `, ${take.variant}` : ''}<span class="label-text block"
          >{[time(take.at), take.clip, take.reasons.join(', ').replaceAll('-', ' '), take.remark].filter(Boolean).join(' · ')}</span
        ></span
      >
      <button type="button" class="btn h-11" aria-label="Remove {told(take)}" onclick={() => remove(take.key)}>Remove</button>
    </li>
  {/each}
</ul>
