<script lang="ts">
  /** The test key before anybody arrives: pictures of the frame and its matte, quality by parts, levers. */
  import Term from '../../parts/Term.svelte'
  import { session } from '../../lib/session.svelte'
  import { testKey } from '../../lib/testKey.svelte'
  import type { Lever, Plan } from '../../lib/types'
  let { plan }: { plan: Plan } = $props()

  let part = $state('whole')
  let view = $state('frame')
  const WINDOWS: Record<string, string> = { whole: 'whole frame', hair: 'hair, 1:1', hand: 'hand, 1:1', screen: 'screen, 1:1', middle: 'middle, 1:1' }
  const VIEWS: Record<string, string> = { frame: 'as recorded', clean: 'before noise and codec', matte: 'matte', truth: 'true matte', difference: 'difference', dark: 'over dark', bright: 'over bright' }
  const PARTS: Record<string, [string, string, number]> = {
    edge_error: ['Edge of the body', 'raw matte error, 0 to 1', 3],
    hair_error: ['Hair', 'raw matte error, 0 to 1', 3],
    motion_error: ['Moving hand', 'matte error, cm²', 1],
    soft_edge: ['Soft edge', 'area that is neither, cm²', 1],
    needed_clip: ['Clip the screen needs', 'share of the matte', 3],
    composite_error: ['Composite', 'signal error at the edge, the worse of dark and bright', 3],
    screen_left: ['Screen colour left', 'signal at the edge after despill', 3],
  }
  const result = $derived(testKey.result)
  const windows = $derived(result?.windows ?? [])
  const shown = $derived(windows.find((w) => w.name === part) ?? windows[0])
  const views = $derived(shown?.views ?? [])
  const chosen = $derived(views.includes(view) ? view : 'frame')
  const source = $derived(shown && result ? `/api/test-key/${result.id}/${shown.name}/${chosen}.png?${result.step}` : '')

  function attempt(lever: Lever) {
    void session.attempt({ text: lever.change, effect: '', cost: lever.cost, before: null, after: null, worsens: [], changes: lever.changes })
    location.hash = `#/setup/${session.id}/camera`
  }
</script>

<div class="grid h-full min-h-0 grid-cols-1 lg:grid-cols-[minmax(0,1fr)_27rem]">
  <section aria-label="Pictures of the test key" class="flex min-h-0 flex-col p-4">
    {#if shown}
      <div class="flex flex-wrap gap-x-5 gap-y-1">
        <span class="flex gap-1.5" role="group" aria-label="Part of the frame">
          {#each windows as w (w.name)}<button type="button" class="plain" class:chosen={shown.name === w.name} aria-pressed={shown.name === w.name} onclick={() => (part = w.name)}>{WINDOWS[w.name] ?? w.name}</button>{/each}
        </span>
        <span class="flex flex-wrap gap-1.5" role="group" aria-label="View">
          {#each views as v (v)}<button type="button" class="plain" class:chosen={chosen === v} aria-pressed={chosen === v} onclick={() => (view = v)}>{VIEWS[v] ?? v}</button>{/each}
        </span>
      </div>
      <div class="mt-3 flex min-h-0 flex-1 items-center justify-center bg-base-300">
        <img src={source} alt="{WINDOWS[shown.name] ?? shown.name}, {VIEWS[chosen] ?? chosen}" class="max-h-full max-w-full object-contain" />
      </div>
      <p class="label-text mt-2">Drawn from the plan: light, spill, shadow and folds as computed; noise of a typical sensor; encoded and decoded by a real codec ({plan.camera.recording.codec}, {plan.camera.recording.chroma}, {plan.camera.recording.bits} bit). The whole frame is reduced; hair and hand are pixel for pixel.</p>
    {:else}
      <div class="flex h-full flex-col items-center justify-center gap-4 text-center">
        <p class="max-w-md text-reading">What would this plan's key look like? A figure is drawn in the planned light, recorded through the planned codec and keyed with one click.</p>
        <button type="button" class="decide" disabled={testKey.running} onclick={() => testKey.start(plan, true)}>{testKey.running ? 'Drawing' : 'Make a test key'}</button>
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
          <button type="button" class="plain" onclick={() => testKey.cancel()}>Cancel</button>
        {:else}
          <button type="button" class={testKey.stale ? 'decide' : 'plain'} onclick={() => testKey.start(plan, true)}>Key again</button>
        {/if}
      </div>
      {#if result.parts.length}
        <h2 class="mt-4 font-semibold"><Term term="matte">Key</Term>, part by part</h2>
        <table class="mt-1 w-full">
          <thead><tr class="label-text text-left"><th class="font-normal">Part</th><th class="text-right font-normal">plan</th><th class="text-right font-normal">ideal</th><th class="text-right font-normal">border</th><th class="text-right font-normal">weight</th></tr></thead>
          <tbody>
            {#each result.parts as p (p.name)}
              {@const [label, unit, digits] = PARTS[p.name] ?? [p.name, '', 3]}
              {@const bad = p.value !== null && p.border !== null && p.value > p.border}
              <tr class="border-t border-line" title={unit}>
                <td class="py-0.5">{label}<span class="label-text block">{unit}</span></td>
                <td class="w-14 text-right" class:text-primary={bad} class:font-semibold={bad}>{p.value?.toFixed(digits) ?? 'not seen'}</td>
                <td class="w-14 text-right text-quiet">{p.ideal?.toFixed(digits) ?? '–'}</td>
                <td class="w-14 text-right text-quiet">{p.border?.toFixed(digits) ?? '–'}</td>
                <td class="w-14 text-right text-quiet">{p.weight.toFixed(2)}</td>
              </tr>
            {/each}
          </tbody>
        </table>
        <p class="label-text mt-1">Residue {result.residue_percent?.toFixed(2) ?? '–'} %, holes {result.holes_percent?.toFixed(2) ?? '–'} %. Ideal: the same scene without a fault. Border: 1/50 s, ISO 1600, 4:2:0, 20 % uneven, 8 % spill.</p>
        <p class="mt-3 flex items-baseline justify-between border-t border-line pt-2"><span>Quality, 100 × 2 to the minus weighted sum</span><span class="text-figure font-light">{result.quality?.toFixed(0)}</span></p>
      {/if}
      {#if result.levers.length}
        <h2 class="mt-4 font-semibold">Levers, one change each</h2>
        <ul>
          {#each result.levers as lever (lever.change)}
            <li class="flex items-start gap-3 border-t border-line py-1.5">
              <span class="w-12 shrink-0 text-right font-semibold" class:text-quiet={lever.gain <= 0.5}>{lever.gain > 0 ? '+' : ''}{lever.gain.toFixed(1)}</span>
              <span class="flex-1">{lever.change}{#if lever.cost}<span class="block text-quiet">{lever.cost}</span>{/if}</span>
              <button type="button" class="plain shrink-0" aria-label="Try: {lever.change}" onclick={() => attempt(lever)}>Try</button>
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
