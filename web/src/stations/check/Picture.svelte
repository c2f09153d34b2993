<script lang="ts">
  /** The frame as picture, deviation map or matte, with spots and the key's sample marked on it. */
  import DeviationScale from '../../parts/DeviationScale.svelte'
  import { deviationColour, reachFor } from '../../lib/deviation'
  import type { Frame } from '../../lib/types'
  let { frame }: { frame: Frame } = $props()

  let view = $state<'picture' | 'deviation' | 'matte'>('picture')
  let boxW = $state(700)
  let boxH = $state(420)
  let canvas = $state<HTMLCanvasElement>()

  const ratio = $derived(frame.reading.width / frame.reading.height)
  const w = $derived(Math.max(40, Math.min(boxW, boxH * ratio)))
  const h = $derived(w / ratio)
  const views = $derived([
    ['picture', 'Picture', true],
    ['deviation', 'Deviation map', frame.deviation !== null],
    ['matte', 'Matte', frame.key !== null],
  ] as const)
  const spots = $derived([
    ...frame.reading.hot_spots.map((s) => ({ ...s, word: 'hot spot' })),
    ...frame.reading.shadows.map((s) => ({ ...s, word: 'shadow' })),
  ])

  const reach = $derived(reachFor((frame.deviation?.values.flat() ?? []).filter((v) => v !== null)))

  $effect(() => {
    const values = frame.deviation?.values
    const context = canvas?.getContext('2d')
    if (!values || !context || !canvas) return
    canvas.width = values[0].length
    canvas.height = values.length
    const image = context.createImageData(canvas.width, canvas.height)
    values.flat().forEach((value, i) => {
      if (value !== null) image.data.set([...deviationColour(value, reach), 255], i * 4)
    })
    context.putImageData(image, 0, 0)
  })
</script>

<div class="flex gap-1.5 pb-2" role="group" aria-label="View of the frame">
  {#each views as [which, word, there] (which)}
    <button type="button" class="plain" class:chosen={view === which} aria-pressed={view === which} disabled={!there} onclick={() => (view = which)}>{word}</button>
  {/each}
  {#if view === 'deviation'}
    <span class="ml-auto"><DeviationScale {reach} zero="the mean" /></span>
  {/if}
</div>
<div class="min-h-56 flex-1 overflow-hidden" bind:clientWidth={boxW} bind:clientHeight={boxH}>
  <div class="relative mx-auto bg-base-300" {@attach (node) => { node.style.width = `${w}px`; node.style.height = `${h}px` }}>
    {#if view === 'picture'}
      <img class="absolute inset-0 h-full w-full" src="/api/frames/{frame.id}/look.jpg" alt="{frame.name}: {frame.reading.hue ?? 'no'} screen on {frame.reading.screen_area_percent.toFixed(0)} % of the frame" />
    {:else if view === 'matte'}
      <img class="absolute inset-0 h-full w-full" src="/api/frames/{frame.id}/matte.png" alt="Matte of the plain key: residue {frame.key?.residue_percent.toFixed(1)} % of the screen" />
    {:else}
      <canvas bind:this={canvas} class="absolute inset-0 h-full w-full" aria-label="Deviation of the screen from its mean"></canvas>
    {/if}
    <svg class="absolute inset-0" width={w} height={h} role="img" aria-label="{spots.length} spots found">
      {#if view !== 'matte'}
        {#each spots as spot, i (i)}
          <rect x={spot.x * w} y={spot.y * h} width={spot.w * w} height={spot.h * h} fill="none" stroke="black" stroke-opacity="0.6" stroke-width="3" />
          <rect x={spot.x * w} y={spot.y * h} width={spot.w * w} height={spot.h * h} fill="none" stroke="white" stroke-width="1.2" stroke-dasharray={spot.delta_percent < 0 ? '4 3' : 'none'} />
          <text x={spot.x * w + 3} y={Math.max(11, spot.y * h - 4)} class="strong" paint-order="stroke" stroke="black" stroke-width="3" fill="white">
            {spot.word} {spot.delta_percent.toFixed(1).replace('-', '−')}
          </text>
        {/each}
      {/if}
      {#if frame.key}
        {@const cx = frame.key.sample.x * w}
        {@const cy = frame.key.sample.y * h}
        <path d="M{cx - 9} {cy}h6M{cx + 3} {cy}h6M{cx} {cy - 9}v6M{cx} {cy + 3}v6" stroke="black" stroke-width="3.4" />
        <path d="M{cx - 9} {cy}h6M{cx + 3} {cy}h6M{cx} {cy - 9}v6M{cx} {cy + 3}v6" stroke="white" stroke-width="1.4" />
      {/if}
    </svg>
  </div>
</div>
{#if frame.key}
  <p class="label-text pt-1.5">
    Plain key, sampled at the cross: residue on {frame.key.residue_percent.toFixed(1)} % of the screen{frame.key.holes_percent === null ? '' : `, holes in ${frame.key.holes_percent.toFixed(1)} % of the figure`}; the whole screen needs a black clip of {frame.key.needed_clip.toFixed(2)}.
  </p>
{/if}
