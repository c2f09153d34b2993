<script lang="ts">
  /** Which lamps there are: a press adds one; of each how many, and how strong where somebody knows. */
  import AskNumber from '../parts/AskNumber.svelte'
  import LampPicture from './LampPicture.svelte'
  import type { Kit } from '../lib/types'
  import { LAMP_KINDS, type LampKind, type LampSaid } from '../lib/startApi'
  let { lamps, kit, onchange }: { lamps: LampSaid[]; kit: Kit | null; onchange: (lamps: LampSaid[]) => void } = $props()

  const WORDS = Object.fromEntries(LAMP_KINDS) as Record<LampKind, string>
  const wordOf = (lamp: LampSaid) => (lamp.kind ? WORDS[lamp.kind] : (lamp.name ?? ''))

  function add(kind: LampKind | null, name: string | null) {
    const at = lamps.findIndex((lamp) => lamp.kind === kind && lamp.name === name)
    if (at < 0) onchange([...lamps, { kind, name, count: 1, lumens: null, watts: null }])
    else set(at, { count: Math.min(12, lamps[at].count + 1) })
  }
  const set = (at: number, fields: Partial<LampSaid>) => onchange(lamps.map((lamp, i) => (i === at ? { ...lamp, ...fields } : lamp)))
  const fewer = (at: number) => (lamps[at].count > 1 ? set(at, { count: lamps[at].count - 1 }) : onchange(lamps.filter((_, i) => i !== at)))
</script>

<div class="flex flex-wrap gap-1.5">
  {#each LAMP_KINDS as [kind, word] (kind)}
    <button type="button" class="btn h-auto w-[5.4rem] flex-col gap-0 px-1 py-1" aria-label="Add a {word}" onclick={() => add(kind, null)}>
      <LampPicture {kind} /><span class="label-text">{word}</span>
    </button>
  {/each}
</div>
{#if kit?.lamps.length}
  <div class="mt-1.5 flex flex-wrap items-baseline gap-1">
    <span class="label-text w-20">from the kit</span>
    {#each kit.lamps as lamp (lamp.name)}
      <button type="button" class="btn btn-sm" aria-label="Add from the kit: {lamp.name}" onclick={() => add(null, lamp.name)}
        >{lamp.name} × {lamp.count}</button
      >
    {/each}
  </div>
{/if}
<ul class="mt-1.5">
  {#each lamps as lamp, i (`${lamp.kind} ${lamp.name}`)}
    <li class="flex items-end gap-2 border-t border-line py-1">
      <span class="min-w-24 flex-1 self-center">{lamp.count} × {wordOf(lamp)}</span>
      {#if lamp.kind && lamp.kind !== 'window'}
        <AskNumber
          label="each"
          unit="lm"
          usual="not known"
          low={10}
          high={200000}
          value={lamp.lumens}
          onchange={(v) => set(i, { lumens: v })}
        />
        <AskNumber label="or" unit="W" usual="not known" low={1} high={5000} value={lamp.watts} onchange={(v) => set(i, { watts: v })} />
      {:else if lamp.kind}
        <span class="label-text self-center">counts as daylight in the room; a meter knows better</span>
      {/if}
      <button type="button" class="btn btn-sm" aria-label="One {wordOf(lamp)} less" onclick={() => fewer(i)}>−</button>
      <button type="button" class="btn btn-sm" aria-label="One {wordOf(lamp)} more" onclick={() => add(lamp.kind, lamp.name)}>+</button>
    </li>
  {/each}
</ul>
