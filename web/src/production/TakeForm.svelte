<script lang="ts">
  /** One take: how it was, why, and the button that logs it, under the thumb. */
  import type { Shot, Take, Takes } from '../lib/productionApi'
  import { freshKey, takeQueue } from '../lib/takeQueue.svelte'
  let {
    production,
    shot,
    number,
    log,
    picture,
  }: {
    production: number
    shot: Shot
    number: number
    log: Takes['shots'][number] | undefined
    picture: { id: number; name: string } | null
  } = $props()

  const STATUS: [Take['status'], string][] = [
    ['good', 'Good'],
    ['keep', 'Keep'],
    ['no', 'No'],
    ['incomplete', 'Incomplete'],
  ]
  const REASONS: [Take['reasons'][number], string][] = [
    ['left-the-screen', 'left the screen'],
    ['focus', 'focus'],
    ['blur', 'blur'],
    ['shadow', 'shadow'],
    ['reflection', 'reflection'],
    ['misread', 'misread'],
    ['noise', 'noise'],
    ['wardrobe', 'wardrobe'],
    ['sound', 'sound'],
    ['other', 'other'],
  ]
  let status = $state<Take['status'] | null>(null)
  let reasons = $state<Take['reasons']>([])
  let variant = $state('')
  let remark = $state('')
  const variants = $derived(log?.progress.variants.filter((one) => one.name) ?? [])
  /** The first variant that has no good take is next. */
  const chosen = $derived(variant || variants.find((one) => one.good === 0)?.name || variants[0]?.name || '')

  function put(kind: Take['kind'], how: Take['status']) {
    takeQueue.log(production, {
      key: freshKey(),
      shot: shot.id,
      number: kind === 'take' ? number : 1,
      at: new Date().toISOString(),
      kind,
      status: how,
      reasons,
      clip: picture?.name ?? '',
      seconds: null,
      moving: shot.needs.includes('moving-camera'),
      variant: kind === 'take' ? chosen : '',
      script_version: shot.script ? shot.script_version : null,
      outfit: shot.outfit,
      remark,
      setup: shot.setup,
      revision: null,
      frame: picture?.id ?? null,
      state: null,
    })
    status = null
    reasons = []
    remark = ''
    variant = ''
  }
  const toggle = (reason: Take['reasons'][number]) =>
    (reasons = reasons.includes(reason) ? reasons.filter((one) => one !== reason) : [...reasons, reason])
</script>

{#if variants.length}
  <div class="flex flex-wrap gap-1.5" role="group" aria-label="Variant">
    {#each variants as one (one.name)}
      <button type="button" class="btn h-11" aria-pressed={chosen === one.name} onclick={() => (variant = one.name)}
        >{one.name}<span class="label-text">{one.good}</span></button
      >
    {/each}
  </div>
{/if}
<p class="text-center text-figure">Take {number}</p>
<div class="grid grid-cols-2 gap-2" role="group" aria-label="How it was">
  {#each STATUS as [how, word] (how)}
    <button
      type="button"
      class="btn h-16 text-reading"
      class:btn-primary={status === how}
      aria-pressed={status === how}
      onclick={() => (status = how)}>{word}</button
    >
  {/each}
</div>
{#if status && status !== 'good'}
  <div class="flex flex-wrap gap-1.5" role="group" aria-label="Why">
    {#each REASONS as [reason, word] (reason)}
      <button type="button" class="btn h-11" aria-pressed={reasons.includes(reason)} onclick={() => toggle(reason)}>{word}</button>
    {/each}
  </div>
{/if}
<input class="input h-11 w-full" aria-label="Remark" placeholder="Remark" maxlength="2000" bind:value={remark} />
<button type="button" class="btn h-11" onclick={() => put('clean-plate', 'good')}>The empty screen was filmed: log the clean plate</button>
<div class="fixed inset-x-0 bottom-0 z-20 border-t border-line bg-base-100 p-3">
  <button
    type="button"
    class="btn btn-primary mx-auto flex h-16 w-full max-w-xl text-reading"
    disabled={!status}
    onclick={() => put('take', status!)}
    >{status ? `Log take ${number}: ${STATUS.find(([how]) => how === status)![1].toLowerCase()}` : 'How was it?'}</button
  >
</div>
