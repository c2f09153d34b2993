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
  let clip = $state('')
  /** As somebody read it off; what is left empty is not known. It stands until somebody changes it. */
  let camera = $state<NonNullable<Take['camera']>>({ iso: null, shutter_s: null, f_number: null, white_balance_k: null, fps: null })
  const read = $derived(Object.values(camera).some((value) => value !== null))
  /** Cameras number their clips: the next one is told by itself. */
  const counted = (name: string) => name.replace(/\d+(?=\.\w+$|$)/, (digits) => String(Number(digits) + 1).padStart(digits.length, '0'))
  const SETTINGS = [
    ['iso', 'ISO'],
    ['shutter_s', 'Shutter 1/'],
    ['f_number', 'f/'],
    ['white_balance_k', 'White balance, K'],
    ['fps', 'Frames a second'],
  ] as const
  function setting(field: (typeof SETTINGS)[number][0], text: string) {
    const typed = Number(text.replace(',', '.'))
    const value = text.trim() && typed > 0 ? typed : null
    camera = { ...camera, [field]: value !== null && field === 'shutter_s' ? 1 / value : value }
  }
  const shown = (field: (typeof SETTINGS)[number][0]) => {
    const value = camera[field]
    return value === null ? '' : String(Math.round(100 * (field === 'shutter_s' ? 1 / value : value)) / 100)
  }
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
      clip: clip.trim() || (picture?.name ?? ''),
      seconds: null,
      moving: shot.needs.includes('moving-camera'),
      variant: kind === 'take' ? chosen : '',
      script_version: shot.script ? shot.script_version : null,
      outfit: shot.outfit,
      remark,
      setup: shot.setup,
      revision: null,
      frame: picture?.id ?? null,
      camera: read ? camera : null,
      state: null,
    })
    clip = counted(clip)
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
<div class="flex gap-2">
  <input class="input h-11 w-28" aria-label="Clip" placeholder={picture?.name ?? 'Clip'} maxlength="200" bind:value={clip} />
  <input class="input h-11 min-w-0 flex-1" aria-label="Remark" placeholder="Remark" maxlength="2000" bind:value={remark} />
</div>
<details>
  <summary class="flex h-11 cursor-pointer items-center text-quiet">Camera, as it stands{read ? ': goes with each take' : ''}</summary>
  <div class="grid grid-cols-2 gap-2">
    {#each SETTINGS as [field, word] (field)}
      <label
        ><span class="label-text block">{word}</span><input
          class="input h-11 w-full"
          inputmode="decimal"
          autocomplete="off"
          value={shown(field)}
          onchange={(event) => setting(field, event.currentTarget.value)}
        /></label
      >
    {/each}
  </div>
</details>
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
