<script lang="ts">
  /** The frame with its instruments: deviation, zebra, trial key, the plan laid over it, another frame beside it; and
   * the tools that work on it: draw round the screen, click its corners, look at single pixels. */
  import DeviationScale from '../../parts/DeviationScale.svelte'
  import Wipe from '../../parts/Wipe.svelte'
  import Candidates from './Candidates.svelte'
  import Deviation from './Deviation.svelte'
  import Marking, { type Tool } from './Marking.svelte'
  import PoseTable from './PoseTable.svelte'
  import Spots from './Spots.svelte'
  import TrialBar from './TrialBar.svelte'
  import Zebra from './Zebra.svelte'
  import { reachFor } from '../../lib/deviation'
  import { correct, poseOf } from '../../lib/checkApi'
  import { session } from '../../lib/session.svelte'
  import type { Comparison, Corner, Frame, FrameSummary, Pose, Trial } from '../../lib/types'
  let {
    frame,
    frames,
    compared,
    reread,
  }: { frame: Frame; frames: FrameSummary[]; compared: Comparison | null; reread: (read: Frame) => void } = $props()

  type View = 'picture' | 'deviation' | 'matte' | 'zebra' | 'plan' | 'trial' | 'beside'
  let view = $state<View>('picture')
  let tool = $state<Tool | null>(null)
  let zebra = $state(70)
  let other = $state(0)
  let trial = $state.raw<Trial | null>(null)
  let trialPicture = $state('')
  let pose = $state.raw<Pose | null>(null)
  let corners = $state.raw<Corner[]>([])
  let pixel = $state.raw<Corner | null>(null)
  let over = $state<number | null>(null)
  let error = $state('')
  let boxW = $state(700)
  let boxH = $state(420)

  /** Read otherwise it is another picture. */
  const read = $derived(`${frame.region.length}-${frame.reading.primaries}-${frame.reading.transfer}`)
  const look = $derived(`/api/frames/${frame.id}/look.jpg?${read}`)
  const ratio = $derived(frame.reading.width / frame.reading.height)
  const w = $derived(Math.max(40, Math.min(boxW, boxH * ratio)))
  const h = $derived(w / ratio)
  const others = $derived(frames.filter((f) => f.id !== frame.id))
  const views = $derived([
    ['picture', 'Picture', true],
    ['deviation', 'Deviation map', frame.deviation !== null],
    ['zebra', 'Zebra', true],
    ['matte', 'Matte', frame.key !== null],
    ['trial', 'Trial key', frame.key !== null],
    ['plan', 'Plan over it', session.evaluation !== null],
    ['beside', 'Beside another', others.length > 0],
  ] as const)
  const TOOLS: [Tool, string, string][] = [
    ['rectangle', 'Rectangle', 'Drag a rectangle round the screen: what is outside is left out.'],
    ['lasso', 'Lasso', 'Draw round the screen: what is outside is left out.'],
    [
      'corners',
      'Corners',
      "Click the screen's corners: upper left, upper right, lower right, lower left. They tell where the camera really stands.",
    ],
    ['pixels', 'Pixels', 'Click a place to see its pixels one for one.'],
  ]
  const spots = $derived([
    ...frame.reading.hot_spots.map((s, i) => ({ ...s, word: 'hot spot', planned: compared?.hot_spots_planned[i] ?? false })),
    ...frame.reading.shadows.map((s, i) => ({ ...s, word: 'shadow', planned: compared?.shadows_planned[i] ?? false })),
  ])
  const lost = $derived(frame.reading.may_be_lost ?? [])
  const reach = $derived(reachFor((frame.deviation?.values.flat() ?? []).filter((v) => v !== null)))
  const picture = $derived(session.evaluation?.picture)
  const path = (points: [number, number][]) => points.map(([u, v], i) => `${i ? 'L' : 'M'}${u * w} ${v * h}`).join('') + 'Z'

  async function guard(work: () => Promise<void>) {
    error = ''
    await work().catch((err: Error) => (error = err.message))
  }
  const region = (drawn: Corner[]) => guard(async () => ((tool = null), reread(await correct(frame.id, drawn))))
  const measure = (clicked: Corner[]) =>
    guard(async () => {
      pose = await poseOf(frame.id, clicked, null)
      corners = pose.corners as Corner[]
      tool = null
    })
</script>

<div class="flex flex-wrap items-center gap-1.5 pb-2">
  <span class="flex flex-wrap gap-1.5" role="group" aria-label="View of the frame">
    {#each views as [which, word, there] (which)}
      <button
        type="button"
        class="btn btn-sm"
        class:btn-active={view === which}
        aria-pressed={view === which}
        disabled={!there}
        onclick={() => ((view = which), which === 'beside' && !other && (other = others[0].id))}>{word}</button
      >
    {/each}
  </span>
  {#if view === 'deviation'}<span class="ml-auto"><DeviationScale {reach} zero="the mean" /></span>{/if}
</div>
{#if view === 'zebra'}
  <label class="flex items-center gap-3 pb-2"
    ><span class="label-text whitespace-nowrap">Stripes above {zebra} % luma</span><input
      type="range"
      class="range range-xs range-primary flex-1"
      min="5"
      max="100"
      bind:value={zebra}
      aria-label="Zebra threshold"
    /></label
  >
{:else if view === 'trial'}
  <TrialBar {frame} {others} show={(found, source) => ((trial = found), (trialPicture = source))} />
{:else if view === 'beside'}
  <label class="flex items-center gap-2 pb-2"
    ><span class="label-text">Right of the line</span><select class="select select-sm !w-auto" bind:value={other}
      >{#each others as f (f.id)}<option value={f.id}>{f.name}</option>{/each}</select
    ></label
  >
{/if}
{#if error}<p role="alert" class="pb-2 text-primary">{error}</p>{/if}
{#if lost.length}<p role="status" class="pb-2 text-primary">
    {lost.length > 1 ? 'Parts' : 'Part'} of the figure {lost.length > 1 ? 'have' : 'has'} nearly the screen's colour: the key may lose {lost.length >
    1
      ? 'them'
      : 'it'}. Another garment, or a screen of the other colour.
  </p>{/if}
<Candidates {frame} bind:over chosen={region} />
<div
  class="min-h-56 flex-1 overflow-hidden {ratio < 1 ? 'max-lg:min-h-112' : 'max-lg:aspect-video'}"
  bind:clientWidth={boxW}
  bind:clientHeight={boxH}
>
  {#if view === 'beside' && other}
    <div
      class="mx-auto"
      {@attach (node) => {
        node.style.width = `${w}px`
      }}
    >
      <Wipe
        left={look}
        right="/api/frames/{other}/look.jpg"
        leftName={frame.name}
        rightName={others.find((f) => f.id === other)?.name ?? ''}
      />
    </div>
  {:else}
    <div
      class="relative mx-auto bg-base-300"
      {@attach (node) => {
        node.style.width = `${w}px`
        node.style.height = `${h}px`
      }}
    >
      {#if view === 'matte'}
        <img
          class="absolute inset-0 h-full w-full"
          src="/api/frames/{frame.id}/matte.png?{read}"
          alt="Matte of the plain key: residue {frame.key?.residue_percent.toFixed(1)} % of the screen"
        />
      {:else if view === 'deviation'}
        <Deviation {frame} {reach} />
      {:else if view === 'trial' && trialPicture}
        <img
          class="absolute inset-0 h-full w-full"
          src={trialPicture}
          alt="Trial key: residue {trial?.residue_percent.toFixed(1)} %, holes {trial?.holes_percent?.toFixed(1) ?? '–'} %"
        />
      {:else}
        <img
          class="absolute inset-0 h-full w-full"
          src={look}
          alt="{frame.name}: {frame.reading.hue ?? 'no'} screen on {frame.reading.screen_area_percent.toFixed(0)} % of the frame"
        />
        {#if view === 'zebra'}<Zebra source={look} above={zebra} />{/if}
      {/if}
      {#if view !== 'matte' && view !== 'trial' && view !== 'plan'}<Spots {spots} sample={frame.key?.sample ?? null} {w} {h} />{/if}
      <svg class="pointer-events-none absolute inset-0" width={w} height={h} aria-hidden="true">
        {#if view === 'plan' && picture}
          {#each picture.surfaces as surface, i (i)}<path
              d={path(surface.points)}
              fill="none"
              stroke="black"
              stroke-opacity="0.6"
              stroke-width="3"
            /><path d={path(surface.points)} fill="none" stroke="var(--color-primary)" stroke-width="1.4" />{/each}
          {#each picture.figure as part, i (i)}<path
              d={path(part.points)}
              fill="none"
              stroke="white"
              stroke-opacity="0.85"
              stroke-dasharray="4 3"
            />{/each}
          <path d={path(picture.needed)} fill="none" stroke="white" stroke-width="1.2" stroke-dasharray="8 5" />
        {/if}
        {#if view === 'trial' && trial}
          {#each trial.residue as box, i (i)}<rect
              x={box.x * w}
              y={box.y * h}
              width={box.w * w}
              height={box.h * h}
              fill="none"
              stroke="var(--color-primary)"
              stroke-width="1.2"
            />{/each}
          {#each trial.holes as box, i (i)}<rect
              x={box.x * w}
              y={box.y * h}
              width={box.w * w}
              height={box.h * h}
              fill="none"
              stroke="white"
              stroke-dasharray="4 3"
            />{/each}
        {/if}
        {#if frame.region.length}<path
            d={path(frame.region as Corner[])}
            fill="none"
            stroke="white"
            stroke-width="1.2"
            stroke-dasharray="2 3"
          />{/if}
        {#if view === 'picture'}
          {#each lost as box, i (i)}
            {#each [['black', 3.4], ['var(--color-primary)', 1.4]] as const as [stroke, width] (stroke)}<rect
                x={box.x * w}
                y={box.y * h}
                width={box.w * w}
                height={box.h * h}
                fill="none"
                {stroke}
                stroke-width={width}
                stroke-dasharray="5 3"
              />{/each}
          {/each}
        {/if}
        {#if !frame.region.length && view === 'picture'}
          {#each frame.reading.candidates ?? [] as one, i (i)}
            {@const [u, v] = one.corners[0]}
            <path
              d={path(one.corners as Corner[])}
              fill="white"
              fill-opacity={over === i ? 0.25 : 0}
              stroke="black"
              stroke-opacity="0.6"
              stroke-width="3"
            />
            <path d={path(one.corners as Corner[])} fill="none" stroke="white" stroke-width="1.4" />
            <text x={u * w + 6} y={v * h + 16} fill="white" stroke="black" stroke-width="3" paint-order="stroke">{i + 1}</text>
          {/each}
        {/if}
        {#if pose}<path d={path(corners)} fill="none" stroke="var(--color-primary)" stroke-width="1.4" />{/if}
      </svg>
      {#if tool}<Marking {tool} {w} {h} drawn={region} clicked={measure} pixel={(at) => (pixel = at)} />{/if}
    </div>
  {/if}
</div>
<div class="flex flex-wrap items-center gap-1.5 pt-2" role="group" aria-label="Tools">
  {#each TOOLS as [which, word, help] (which)}<button
      type="button"
      class="btn btn-sm"
      class:btn-active={tool === which}
      aria-pressed={tool === which}
      title={help}
      onclick={() => (tool = tool === which ? null : which)}>{word}</button
    >{/each}
  <button type="button" class="btn btn-sm" title="Find the screen's corners where all four are in the picture" onclick={() => measure([])}
    >Find corners</button
  >
  {#if frame.region.length}<button type="button" class="btn btn-sm" onclick={() => region([])}>Whole frame again</button>{/if}
  <span class="label-text">{TOOLS.find(([which]) => which === tool)?.[2] ?? ''}</span>
</div>
{#if pixel}
  <div class="pt-2">
    <p class="label-text flex justify-between">
      <span>Pixels one for one, {(100 * pixel[0]).toFixed(0)} % across, {(100 * pixel[1]).toFixed(0)} % down</span><button
        type="button"
        class="cursor-pointer hover:text-ink"
        onclick={() => (pixel = null)}>close</button
      >
    </p>
    <img
      class="max-w-full [image-rendering:pixelated]"
      width="480"
      src="/api/frames/{frame.id}/pixels.png?x={pixel[0]}&y={pixel[1]}&w=160&h=90"
      alt="Single pixels of the frame"
    />
  </div>
{/if}
{#if pose}<PoseTable {pose} frameId={frame.id} {corners} close={() => (pose = null)} update={(found) => (pose = found)} />{/if}
{#if frame.key && view !== 'trial'}
  <p class="label-text pt-1.5">
    Plain key, sampled at the cross: residue on {frame.key.residue_percent.toFixed(1)} % of the screen{frame.key.holes_percent === null
      ? ''
      : `, holes in ${frame.key.holes_percent.toFixed(1)} % of the figure`}; the whole screen needs a black clip of {frame.key.needed_clip.toFixed(
      2,
    )}.
  </p>
{/if}
