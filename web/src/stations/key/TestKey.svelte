<script lang="ts">
  /** The test key before anybody arrives: pictures of the frame and its matte, quality by parts, levers. */
  import KeyParts from './KeyParts.svelte'
  import { VIEWS, windowName } from './words'
  import Term from '../../parts/Term.svelte'
  import Wipe from '../../parts/Wipe.svelte'
  import { session } from '../../lib/session.svelte'
  import { testKey } from '../../lib/testKey.svelte'
  import { prefs } from '../../lib/prefs.svelte'
  import { say } from '../../lib/say'
  import type { Lever, Plan } from '../../lib/types'
  let { plan }: { plan: Plan } = $props()

  let part = $state('whole')
  let view = $state('frame')
  /** The view on the other side of the dividing line; none: one picture. */
  let other = $state('')
  $effect(() => void testKey.show(session.id))
  const result = $derived(testKey.result)
  const windows = $derived(result?.windows ?? [])
  const shown = $derived(windows.find((w) => w.name === part) ?? windows[0])
  const views = $derived(Object.keys(VIEWS).filter((v) => shown?.views.includes(v)))
  const chosen = $derived(views.includes(view) ? view : (views[0] ?? 'frame'))
  const against = $derived(views.includes(other) && other !== chosen ? other : '')
  const source = (which: string) =>
    shown && result ? `/api/test-key/${result.id}/${shown.name}/${which}.png?${encodeURIComponent(result.step)}` : ''

  /** A key kept by an older version has words only. */
  const changeOf = (lever: Lever) => (lever.told ? say(lever.told, prefs) : lever.change)
  const costOf = (lever: Lever) => (lever.costs ? say(lever.costs, prefs) : lever.cost)
  function attempt(lever: Lever) {
    void session.attempt({ text: changeOf(lever), changes: lever.changes })
    location.hash = `#/setup/${session.id}/camera`
  }
</script>

<div class="grid h-full min-h-0 grid-cols-1 lg:grid-cols-[minmax(0,1fr)_27rem]">
  <section aria-label="Pictures of the test key" class="flex min-h-0 flex-col p-4">
    {#if shown}
      <div class="flex flex-wrap gap-x-5 gap-y-1">
        <span class="flex gap-1.5" role="group" aria-label="Part of the frame">
          {#each windows as w (w.name)}<button
              type="button"
              class="btn btn-sm"
              class:btn-active={shown.name === w.name}
              aria-pressed={shown.name === w.name}
              onclick={() => (part = w.name)}>{windowName(w.name, plan.companions)}</button
            >{/each}
        </span>
        <span class="flex flex-wrap gap-1.5" role="group" aria-label="View">
          {#each views as v (v)}<button
              type="button"
              class="btn btn-sm"
              class:btn-active={chosen === v}
              aria-pressed={chosen === v}
              onclick={() => (view = v)}>{VIEWS[v] ?? v}</button
            >{/each}
        </span>
      </div>
      <label class="mt-1.5 flex items-center gap-1.5"
        ><span class="label-text whitespace-nowrap">Divided from</span>
        <select class="select select-sm !w-auto" bind:value={other}>
          <option value="">nothing</option>
          {#each views.filter((v) => v !== chosen) as v (v)}<option value={v}>{VIEWS[v] ?? v}</option>{/each}
        </select>
      </label>
      <div class="mt-3 flex min-h-0 flex-1 items-center justify-center bg-base-300">
        {#if against}
          <Wipe left={source(chosen)} right={source(against)} leftName={VIEWS[chosen] ?? chosen} rightName={VIEWS[against] ?? against} />
        {:else}
          <img
            src={source(chosen)}
            alt="{windowName(shown.name, plan.companions)}, {VIEWS[chosen] ?? chosen}"
            class="max-h-full max-w-full object-contain"
          />
        {/if}
      </div>
      <p class="label-text mt-2">
        Drawn from the plan: light, spill, shadow and folds as computed; noise of a typical sensor; encoded and decoded by a real codec ({plan
          .camera.recording.codec}, {plan.camera.recording.chroma}, {plan.camera.recording.bits} bit). The whole frame is reduced; hair and hand
        are pixel for pixel.
      </p>
    {:else}
      <div class="flex h-full flex-col items-center justify-center gap-4 text-center">
        <p class="max-w-md text-reading">
          What would this plan's key look like? A figure is drawn in the planned light, recorded through the planned codec and keyed with
          one click.
        </p>
        <button type="button" class="btn btn-sm btn-primary" disabled={testKey.running} onclick={() => testKey.start(plan, true)}
          >{testKey.running ? 'Drawing' : 'Make a test key'}</button
        >
      </div>
    {/if}
    {#if testKey.problem}<p role="alert" class="mt-2 text-primary">{testKey.problem}</p>{/if}
  </section>
  <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
  <section aria-label="Quality and levers" tabindex="0" class="relative min-h-0 overflow-y-auto border-line p-4 lg:border-l">
    {#if result}
      <div class="flex items-center justify-between gap-3" role="status">
        <span>
          {#if result.state === 'running'}Working: {result.step}
          {:else if result.state === 'cancelled'}Cancelled; what was ready is shown.
          {:else if testKey.stale}<span class="text-primary">The plan has changed since this key.</span>
          {:else}Of the plan as it stands.{/if}
        </span>
        {#if result.state === 'running'}
          <button type="button" class="btn btn-sm" onclick={() => testKey.cancel()}>Cancel</button>
        {:else}
          <button type="button" class={testKey.stale ? 'decide' : 'plain'} onclick={() => testKey.start(plan, true)}>Key again</button>
        {/if}
      </div>
      {#if result.parts.length}
        <h2 class="mt-4 font-semibold"><Term term="matte">Key</Term>, part by part</h2>
        <KeyParts keys={[result]} />
      {/if}
      {#if result.levers.length}
        <h2 class="mt-4 font-semibold">Levers, one change each</h2>
        <ul>
          {#each result.levers as lever (lever.change)}
            <li class="flex items-start gap-3 border-t border-line py-1.5">
              <span class="w-12 shrink-0 text-right font-semibold" class:text-quiet={lever.gain <= 0.5}
                >{lever.gain > 0 ? '+' : ''}{lever.gain.toFixed(1)}</span
              >
              <span class="flex-1"
                >{changeOf(lever)}{#if lever.cost}<span class="block text-quiet">{costOf(lever)}</span>{/if}</span
              >
              <button type="button" class="btn btn-sm shrink-0" aria-label="Try: {changeOf(lever)}" onclick={() => attempt(lever)}
                >Try</button
              >
            </li>
          {/each}
        </ul>
        <p class="label-text mt-1">Sharpening is no lever: it draws dark lines round every edge.</p>
      {/if}
    {:else}
      <p class="text-quiet">The parts of the quality, and what one change each would gain, come with the key.</p>
    {/if}
  </section>
</div>
