<script lang="ts">
  /** The kept test keys of two set-ups side by side: the same window and view of both, and their parts. */
  import KeyParts from '../stations/key/KeyParts.svelte'
  import { VIEWS, windowName } from '../stations/key/words'
  import { call, client } from '../lib/api'
  import { keptKeys } from '../lib/testKey.svelte'
  import type { Plan, TestKey } from '../lib/types'
  let { ids, plans }: { ids: [number, number]; plans: [Plan, Plan] } = $props()

  let keys = $state.raw<(TestKey | null)[]>([null, null])
  let busy = $state<boolean[]>([false, false])
  let part = $state('whole')
  let view = $state('matte')
  let problem = $state('')
  const put = (side: number, key: TestKey | null) => (keys = keys.map((k, i) => (i === side ? key : k)))
  async function load(side: number) {
    put(side, (await keptKeys(ids[side]).catch(() => []))[0] ?? null)
  }
  $effect(() => {
    void load(0)
    void load(1)
  })
  const both = $derived(keys[0] && keys[1] ? ([keys[0], keys[1]] as TestKey[]) : null)
  const windows = $derived(both ? both[0].windows.filter((w) => both[1].windows.some((o) => o.name === w.name)) : [])
  const at = $derived(windows.find((w) => w.name === part)?.name ?? 'whole')

  async function make(side: number) {
    busy[side] = true
    problem = ''
    try {
      let key = await call(client.POST('/api/test-key', { body: { plan: plans[side], levers: false, setup_id: ids[side] } }))
      while (key.state === 'running') {
        await new Promise((done) => setTimeout(done, 500))
        key = await call(client.GET('/api/test-key/{job_id}', { params: { path: { job_id: key.id } } }))
      }
      if (key.state === 'failed') problem = key.problem
      await load(side)
    } catch (error) {
      problem = (error as Error).message
    }
    busy[side] = false
  }
</script>

<section aria-label="Test keys" class="mt-6">
  <h2 class="font-semibold">Test keys</h2>
  {#if problem}<p role="alert" class="text-primary">{problem}</p>{/if}
  {#if both}
    <div class="mt-1 flex flex-wrap gap-x-5 gap-y-1">
      <span class="flex gap-1.5" role="group" aria-label="Part of the frame">
        {#each windows as w (w.name)}<button
            type="button"
            class="btn btn-sm"
            class:btn-active={at === w.name}
            aria-pressed={at === w.name}
            onclick={() => (part = w.name)}>{windowName(w.name)}</button
          >{/each}
      </span>
      <span class="flex flex-wrap gap-1.5" role="group" aria-label="View">
        {#each ['frame', 'matte', 'dark', 'bright', 'plate', 'deviation'] as v (v)}<button
            type="button"
            class="btn btn-sm"
            class:btn-active={view === v}
            aria-pressed={view === v}
            onclick={() => (view = v)}>{VIEWS[v]}</button
          >{/each}
      </span>
    </div>
  {/if}
  <div class="mt-2 grid grid-cols-2 gap-6 max-sm:grid-cols-1">
    {#each keys as key, side (side)}
      <div class="min-w-0">
        {#if key && both}<img
            src="/api/test-key/{key.id}/{at}/{view}.png"
            alt="{side ? 'Right' : 'Left'}: {windowName(at)}, {VIEWS[view]}"
            class="w-full bg-base-300"
          />{/if}
        <p class="mt-1 flex items-center justify-between gap-3">
          <span class={key?.stale ? 'text-primary' : 'text-quiet'}
            >{!key ? 'No test key yet.' : key.stale ? 'The plan has changed since this key.' : 'Of the plan as it stands.'}</span
          >
          <button type="button" class="btn btn-sm" disabled={busy[side]} onclick={() => make(side)}
            >{busy[side] ? 'Making it' : key ? 'Key again' : 'Make a test key'}</button
          >
        </p>
      </div>
    {/each}
  </div>
  {#if both}<div class="max-w-2xl"><KeyParts keys={both} names={['left', 'right']} /></div>{/if}
</section>
