<script lang="ts">
  /** Two set-ups side by side: what the camera sees of each, and every number that differs. */
  import { push } from 'svelte-spa-router'
  import Words from '../parts/Words.svelte'
  import Preferences from '../parts/Preferences.svelte'
  import State from '../parts/State.svelte'
  import ComparedKeys from './ComparedKeys.svelte'
  import FloorPicture from '../stations/FloorPicture.svelte'
  import FrameView from '../stations/FrameView.svelte'
  import { evaluate, getSetup, listTitles, versionPlan } from '../lib/api'
  import { prefs } from '../lib/prefs.svelte'
  import { Resource } from '../lib/resource.svelte'
  import { STATE_OF, type Evaluation, type Plan, type SetupTitle } from '../lib/types'
  import { say } from '../lib/say'
  import { showValue } from '../lib/units'
  let { params }: { params: { a: string; b: string } } = $props()

  type Side = { plan: Plan; evaluation: Evaluation }
  const all = new Resource<SetupTitle[]>()
  const asked = [new Resource<Side>(), new Resource<Side>()]
  const setups = $derived(all.value ?? [])
  const sides = $derived(asked.map((side) => side.value))
  const problem = $derived([all, ...asked].map((one) => one.error).find(Boolean) ?? '')

  void all.ask(listTitles)
  /** "3" is a set-up as it is, "3v12" its version 12. */
  async function look(what: string): Promise<Side> {
    const [id, version] = what.split('v').map(Number)
    const plan = version ? await versionPlan(id, version) : (await getSetup(id)).plan
    return { plan, evaluation: await evaluate(plan, false) }
  }
  $effect(() => {
    const { a, b } = params
    void asked[0].ask(() => look(a))
    void asked[1].ask(() => look(b))
  })
  const choose = (side: number, id: string) => push(side === 0 ? `/compare/${id}/${params.b}` : `/compare/${params.a}/${id}`)
  const rows = $derived.by(() => {
    const [a, b] = sides
    if (!a || !b) return []
    const found = a.evaluation.numbers.map((n) => {
      const other = b.evaluation.numbers.find((m) => m.id === n.id)
      const show = (v: number | null | undefined) => showValue(v ?? null, n.unit, n.digits, prefs.length, prefs.light)
      return { label: n.label, left: show(n.value), right: show(other?.value) }
    })
    // What differs first; each part in the order of the work.
    const differs = (row: (typeof found)[number]) => row.left !== row.right
    return [...found.filter(differs), ...found.filter((row) => !differs(row))]
  })
  const open = (side: Side | null) => (side?.evaluation.check.findings ?? []).filter((f) => f.severity !== 'fine').slice(0, 5)
</script>

<svelte:head><title>Compare · Ausblick</title></svelte:head>
<header class="flex h-11 items-center justify-between border-b border-line px-4">
  <h1 class="font-semibold">
    <a href="#/" class="hover:text-primary">Ausblick</a> <span class="text-quiet" aria-hidden="true">/</span> Compare
  </h1>
  <Preferences />
</header>
{#if problem}<p role="alert" class="border-b border-primary px-4 py-1.5 text-primary">{problem}</p>{/if}
<main class="mx-auto max-w-7xl px-4 py-4">
  <div class="grid grid-cols-2 gap-6 max-sm:grid-cols-1">
    {#each sides as side, i (i)}
      <section aria-label={i === 0 ? 'Left' : 'Right'} class="min-w-0">
        <select
          class="select select-sm mb-2 w-full"
          aria-label={i === 0 ? 'Set-up on the left' : 'Set-up on the right'}
          value={i === 0 ? params.a : params.b}
          onchange={(event) => choose(i, event.currentTarget.value)}
        >
          {#if (i === 0 ? params.a : params.b).includes('v')}
            <option value={i === 0 ? params.a : params.b}>{side?.plan.title ?? ''}, an earlier version</option>
          {/if}
          {#each setups as setup (setup.id)}<option value={String(setup.id)}>{setup.title}</option>{/each}
        </select>
        <div class="h-[21rem]">
          {#if side}<FrameView plan={side.plan} evaluation={side.evaluation} />{/if}
        </div>
        {#if side}<FloorPicture plan={side.plan} evaluation={side.evaluation} />{/if}
        <ul class="mt-2">
          {#each open(side) as finding (finding.id)}
            <li class="flex gap-3 border-t border-line py-1">
              <span class="w-14 shrink-0"><State state={STATE_OF[finding.severity]} /></span><span>{say(finding.told, prefs)}</span>
            </li>
          {:else}
            {#if side}<li class="border-t border-line py-1 text-quiet">Everything judged holds.</li>{/if}
          {/each}
        </ul>
      </section>
    {/each}
  </div>
  {#if sides[0] && sides[1]}<ComparedKeys ids={[parseInt(params.a), parseInt(params.b)]} plans={[sides[0].plan, sides[1].plan]} />{/if}
  {#if rows.length}
    <table class="table table-xs mt-6 max-w-2xl">
      <thead
        ><tr class="label-text text-left"
          ><th class="font-normal">Number</th><th class="text-right font-normal">left</th><th class="text-right font-normal">right</th></tr
        ></thead
      >
      <tbody>
        {#each rows as row (row.label)}
          <tr class="border-t border-line" class:text-quiet={row.left === row.right}
            ><td class="py-0.5"><Words text={row.label} /></td><td class="text-right">{row.left}</td><td
              class="text-right"
              class:font-semibold={row.left !== row.right}>{row.right}</td
            ></tr
          >
        {/each}
      </tbody>
    </table>
  {/if}
</main>
