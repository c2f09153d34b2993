<script lang="ts">
  /** What the camera sees, computed: screen with its deviation map, needed outline, figure, missing screen. */
  import { untrack } from 'svelte'
  import DeviationScale from '../parts/DeviationScale.svelte'
  import Either from '../parts/Either.svelte'
  import DeviationMap from './DeviationMap.svelte'
  import { reachFor } from '../lib/deviation'
  import { drawPlan } from '../lib/api'
  import { sameSet } from '../lib/changes'
  import { opened } from '../lib/resource.svelte'
  import { session, type Ghost } from '../lib/session.svelte'
  import { path } from '../lib/sheet'
  import type { Evaluation, Plan } from '../lib/types'
  let { plan: now, evaluation: present, trial = null }: { plan: Plan; evaluation: Evaluation | null; trial?: Ghost | null } = $props()

  /** While something is tried, the frame shows how it would be; the present is one click away. */
  let then = $state(true)
  const evaluation = $derived(trial && then ? trial.evaluation : present)
  const plan = $derived(trial && then ? trial.plan : now)

  /** Levels on the screen, or the set drawn as it is lit; while hands move something, and until it is drawn, levels. */
  let shown = $state<'levels' | 'picture'>('levels')
  const drawn = opened<{ of: Plan; picture: string | null; settled: boolean }>()
  let asked: Plan | null = null
  $effect(() => {
    const of = plan
    const rest = session.moving ? RESTED : 0
    if (shown !== 'picture' || untrack(() => (drawn.value?.of === of && drawn.value.settled) || (drawn.busy && asked === of))) return
    session.glimpse = new Promise<void>((seen) => {
      session.drawing = drawn.ask(async (signal, meanwhile) => {
        asked = of
        const last = drawn.value?.of
        // Where somebody or the camera moved, first in the light that was; of a moved lamp none is known.
        if (!last || sameSet(last, of)) {
          const early = { of, ...(await drawPlan(of, true, signal).finally(seen)) }
          if (early.settled) return early
          if (early.picture) meanwhile(early)
        } else seen()
        return { of, ...(await drawPlan(of, false, signal)) }
      }, rest)
    })
  })
  const pictured = $derived(shown === 'picture' && drawn.value?.of === plan ? drawn.value : null)

  let boxW = $state(540)
  let boxH = $state(304)
  const id = $props.id()

  const picture = $derived(evaluation?.picture)
  const ratio = $derived(picture ? picture.width / picture.height : 16 / 9)
  const w = $derived(Math.max(60, Math.min(boxW, boxH * ratio)))
  const h = $derived(w / ratio)
  const px = $derived((points: number[][]) => points.map(([u, v]) => [u * w, v * h]))
  const hue = $derived(`var(--screen-${plan.screen.hue})`)
  const project = $derived.by(() => {
    const m = picture?.plane ?? []
    return (x: number, y: number): [number, number] => {
      const [a, b, c] = m.map((row) => row[0] * x + row[1] * y + row[2])
      return [(a / c) * w, (b / c) * h]
    }
  })

  /** Judged against the wanted level, or against the screen's own mean: level and evenness are two questions. */
  let against = $state<'wanted' | 'mean'>('wanted')
  const seen = $derived(
    evaluation
      ? [evaluation.map, ...evaluation.map.beside].flatMap((one) =>
          one.deviation.flatMap((row, r) => row.filter((_, c) => one.judged[r][c])),
        )
      : [],
  )
  const offset = $derived(against === 'mean' && seen.length ? seen.reduce((a, b) => a + b, 0) / seen.length : 0)
  const reach = $derived(reachFor(seen.map((v) => v - offset)))

  type Beside = Evaluation['map']['beside'][number]
  const CORNERS = [
    [-1, -1],
    [1, -1],
    [1, 1],
    [-1, 1],
  ]
  /** A cell of a floor run, curve or wing as the picture has it. */
  const cell = (one: Beside, r: number, c: number): [number, number][] =>
    [
      [r, c],
      [r, c + 1],
      [r + 1, c + 1],
      [r + 1, c],
    ].map(([i, j]) => [one.u[i][j] * w, one.v[i][j] * h])
  const judgedBeside = $derived(new Set<string>(evaluation?.map.beside.map((one) => one.name) ?? []))

  /** Cells of the needed screen where the figure takes a twentieth of the light or more. */
  const shades = $derived.by(() => {
    if (!evaluation) return []
    const { x, y, shadow, judged } = evaluation.map
    const [dx, dy] = [(x[1] - x[0]) / 2, (y[1] - y[0]) / 2]
    const onWall = shadow.flatMap((row, r) =>
      row.flatMap((lost, c) => (lost >= 0.05 && judged[r][c] ? [CORNERS.map(([sx, sy]) => project(x[c] + sx * dx, y[r] + sy * dy))] : [])),
    )
    const others = evaluation.map.beside.flatMap((one) =>
      one.shadow.flatMap((row, r) => row.flatMap((lost, c) => (lost >= 0.05 && one.judged[r][c] ? [cell(one, r, c)] : []))),
    )
    return [...onWall, ...others]
  })
  /** Where the pane shows lamps; drawn as seen, the pane's plane moved to the screen's by the lens. */
  const panes = $derived.by(() => {
    const pane = plan.window
    if (!evaluation || !pane) return []
    return evaluation.check.reflections.filter((r) => r.visible && r.at).map((r) => inPane(r.at![0], r.at![1]))
  })
  const inPane = (px: number, py: number) => {
    const { x, y, z } = plan.camera
    const share = z / (z - plan.window!.z)
    return project(x + (px - x) * share, y + (py - y) * share)
  }
  const glass = $derived(
    evaluation && plan.window
      ? [
          [-1, -1],
          [1, -1],
          [1, 1],
          [-1, 1],
        ].map(([sx, sy]) => inPane(plan.window!.x + (sx * plan.window!.width) / 2, plan.window!.y + (sy * plan.window!.height) / 2))
      : [],
  )
  const summary = $derived.by(() => {
    if (!evaluation) return 'Frame not computed yet'
    const { coverage, screen } = evaluation.check
    const level = screen
      ? `screen ${screen.level_luma.toFixed(0)} % luma, spread ${screen.spread_stops?.toFixed(2) ?? 'unbounded'} stops`
      : 'no screen seen'
    return `What the camera sees: ${level}; ${coverage.covered ? 'screen behind everything needed' : 'screen missing where needed'}`
  })
  const SHOWN = [
    ['levels', 'Levels'],
    ['picture', 'As the camera sees it'],
  ] as const
  const WHEN = [
    [false, 'now'],
    [true, 'then'],
  ] as const
  const zeros = $derived([
    ['wanted', `the wanted ${evaluation?.map.target.toFixed(0) ?? '–'} %`],
    ['mean', 'its mean'],
  ] as const)
  /** A hand that rests so long, ms, while it holds something wants to see it. */
  const RESTED = 150
  const SHADE: Record<string, number> = {
    torso: 0.42,
    arms: 0.5,
    legs: 0.36,
    head: 0.66,
    hands: 0.66,
    hair: 0.5,
    feet: 0.3,
    chair: 0.24,
    prop: 0.78,
  }
</script>

<figure class="flex h-full min-h-0 flex-col">
  <div class="relative min-h-0 flex-1 overflow-hidden" bind:clientWidth={boxW} bind:clientHeight={boxH}>
    {#if evaluation && picture}
      <div
        class="relative mx-auto overflow-hidden bg-base-300"
        {@attach (node) => {
          node.style.width = `${w}px`
          node.style.height = `${h}px`
        }}
      >
        <DeviationMap map={evaluation.map} {project} {offset} {reach} width={w} height={h} />
        {#if pictured}<img
            src="data:image/jpeg;base64,{pictured.picture}"
            alt="The planned set as the camera sees it"
            class="absolute inset-0 h-full w-full"
          />{/if}
        <svg class="absolute inset-0" width={w} height={h} role="img" aria-label={summary}>
          <defs>
            <pattern id="{id}-missing" width="8" height="8" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
              <rect width="8" height="8" fill="var(--color-base-300)" fill-opacity="0.5" />
              <path d="M0 0V8" stroke="var(--color-primary)" stroke-width="4" />
            </pattern>
            <pattern id="{id}-shade" width="5" height="5" patternUnits="userSpaceOnUse" patternTransform="rotate(-45)">
              <path d="M0 0V5" stroke="black" stroke-opacity="0.8" stroke-width="1.6" />
            </pattern>
            <mask id="{id}-on">
              {#each picture.surfaces as surface, i (i)}<path d={path(px(surface.points), true)} fill="white" />{/each}
            </mask>
            <mask id="{id}-bare">
              <rect width={w} height={h} fill="white" />
              {#each picture.surfaces as surface, i (i)}<path d={path(px(surface.points), true)} fill="black" />{/each}
            </mask>
          </defs>
          {#if !pictured}
            {#each picture.surfaces as surface, i (i)}
              {#if surface.name !== 'wall' && !judgedBeside.has(surface.name)}<path
                  d={path(px(surface.points), true)}
                  fill={hue}
                  fill-opacity="0.75"
                />{/if}
              <path d={path(px(surface.points), true)} class="drawn" stroke={hue} />
            {/each}
            <path
              d="M0 0H{w}V{h}H0Z{path(px(picture.needed), true)}"
              fill="var(--color-base-300)"
              fill-opacity="0.55"
              fill-rule="evenodd"
              mask="url(#{id}-on)"
            />
            {#each evaluation.map.contours as contour, i (i)}
              <path
                d={path(contour.line.map(([x, y]) => project(x, y)))}
                fill="none"
                stroke="black"
                stroke-opacity={contour.level === 0 ? 0.75 : 0.35}
                stroke-width={contour.level === 0 ? 1.4 : 0.8}
              />
            {/each}
            <path d={shades.map((shade) => path(shade, true)).join('')} fill="url(#{id}-shade)" />
            {#if glass.length}<path
                d={path(glass, true)}
                fill="white"
                fill-opacity="0.06"
                stroke="white"
                stroke-opacity="0.7"
                stroke-width="1"
              />{/if}
            {#each panes as pane, i (i)}<circle
                cx={pane[0]}
                cy={pane[1]}
                r="7"
                fill="none"
                stroke="var(--color-primary)"
                stroke-width="2"
              />{/each}
          {/if}
          <path d={path(px(picture.needed), true)} fill="url(#{id}-missing)" mask="url(#{id}-bare)" />
          {#if !pictured}
            <g stroke="black" stroke-opacity="0.55" stroke-width="0.75">
              {#each picture.figure as part, i (i)}
                <path d={path(px(part.points), true)} fill="oklch({SHADE[part.name] ?? 0.5} 0 0)" fill-opacity="0.92" />
              {/each}
            </g>
          {/if}
          <path d={path(px(picture.needed), true)} fill="none" stroke="black" stroke-opacity="0.6" stroke-width="2.4" />
          <path
            d={path(px(picture.needed), true)}
            fill="none"
            stroke={evaluation.check.coverage.covered ? 'white' : 'var(--color-primary)'}
            stroke-width="1.2"
            stroke-dasharray="6 4"
          />
          {#each session.marks?.places ?? [] as place, i (i)}
            {@const [mx, my] = project(place[0], place[1])}
            <path d="M{mx - 5} {my}h10M{mx} {my - 5}v10" stroke="black" stroke-width="3" />
            <path d="M{mx - 5} {my}h10M{mx} {my - 5}v10" stroke="white" stroke-width="1.2" />
          {/each}
          {#if !pictured}
            {#each picture.lamps as lamp (lamp.id)}
              <g transform="translate({lamp.u * w} {lamp.v * h})" class="drawn">
                <circle r="6" fill="var(--color-base-300)" />
                <text y="3.5" text-anchor="middle" class="strong" stroke="none">{plan.lights.findIndex((l) => l.id === lamp.id) + 1}</text>
              </g>
            {/each}
          {/if}
        </svg>
      </div>
    {/if}
  </div>
  <figcaption class="flex flex-wrap items-center justify-between gap-x-3 pt-0.5">
    <span class="label-text flex items-center gap-2">
      <Either value={shown} options={SHOWN} onchange={(which) => (shown = which)} />
    </span>
    {#if shown === 'levels'}
      <span class="label-text flex items-center gap-2">
        {evaluation?.map.trace === 'luma' ? 'Luma' : 'Key channel'} against
        <Either value={against} options={zeros} onchange={(which) => (against = which)} />
      </span>
    {:else}
      <span class="label-text" role="status"
        >{drawn.error ||
          (pictured ? (pictured.settled ? 'Drawn from the plan, without noise' : 'Light as before the move …') : 'Drawing …')}</span
      >
    {/if}
    {#if trial}
      <span class="label-text flex gap-2">
        <Either value={then} options={WHEN} onchange={(which) => (then = which)} accent />
      </span>
    {/if}
    {#if shown === 'levels'}<DeviationScale {reach} zero={against === 'wanted' ? 'the wanted level' : 'the mean'} />{/if}
  </figcaption>
</figure>
