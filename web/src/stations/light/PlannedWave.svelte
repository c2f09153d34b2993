<script lang="ts">
  /** The waveform that the needed screen will draw: a line per row, the wanted band behind it. */
  import { scaleLinear } from 'd3-scale'
  import { line } from 'd3-shape'
  import Term from '../../parts/Term.svelte'
  import type { Evaluation } from '../../lib/types'
  let { evaluation }: { evaluation: Evaluation | null } = $props()

  let width = $state(480)
  const HEIGHT = 110
  const LEFT = 28
  const map = $derived(evaluation?.map)
  type Dot = { u: number; level: number } | null
  /** A line per row of every surface, across as the picture has it. */
  const lines = $derived.by(() => {
    if (!map || !evaluation) return []
    const [a, , c] = evaluation.picture.plane
    const across = (x: number, y: number) => (a[0] * x + a[1] * y + a[2]) / (c[0] * x + c[1] * y + c[2])
    const row = (one: { deviation: number[][]; judged: boolean[][] }, r: number, u: (c: number) => number): Dot[] =>
      one.deviation[r].map((v, k) => (one.judged[r][k] ? { u: u(k), level: v + map.target } : null))
    const wall = map.y.map((y, r) => row(map, r, (k) => across(map.x[k], y)))
    const beside = map.beside.flatMap((one) =>
      one.y.map((_, r) => row(one, r, (k) => (one.u[r][k] + one.u[r][k + 1] + one.u[r + 1][k] + one.u[r + 1][k + 1]) / 4)),
    )
    return [...wall, ...beside].filter((dots) => dots.some((dot) => dot !== null))
  })
  const dots = $derived(lines.flat().filter((dot) => dot !== null))
  const all = $derived(dots.map((dot) => dot.level))
  const low = $derived(Math.max(0, Math.floor((Math.min(map?.target_low ?? 40, ...all) - 4) / 10) * 10))
  const high = $derived(Math.ceil((Math.max(map?.target_high ?? 50, ...all) + 4) / 10) * 10)
  const y = $derived(scaleLinear([low, high], [HEIGHT, 0]))
  const x = $derived(scaleLinear([Math.min(1, ...dots.map((dot) => dot.u)), Math.max(0, ...dots.map((dot) => dot.u))], [LEFT, width]))
  const draw = (row: Dot[]) =>
    line<Dot>()
      .defined((dot) => dot !== null)
      .x((dot) => x(dot?.u ?? 0))
      .y((dot) => y(dot?.level ?? 0))(row)
  const ticks = $derived(y.ticks((high - low) / 10 < 6 ? (high - low) / 10 : (high - low) / 20))
  const said = $derived(
    all.length ? `between ${Math.min(...all).toFixed(0)} and ${Math.max(...all).toFixed(0)} %` : 'no needed screen in view',
  )
</script>

<figure class="mt-3">
  <figcaption class="flex items-baseline justify-between">
    <span class="font-semibold"><Term term="waveform">Waveform</Term> to expect</span>
    <span class="label-text">{map?.trace === 'luma' ? 'luma' : 'key channel'}, {said}</span>
  </figcaption>
  <div class="mt-1" bind:clientWidth={width}>
    <svg {width} height={HEIGHT + 2} class="block bg-base-300" role="img" aria-label="Waveform to expect of the needed screen, {said}">
      {#if map}
        <rect
          x={LEFT}
          width={width - LEFT}
          y={y(map.target_high)}
          height={Math.max(1, y(map.target_low) - y(map.target_high))}
          fill="var(--color-primary)"
          fill-opacity="0.14"
        />
        {#each ticks as tick (tick)}
          <line x1={LEFT} x2={width} y1={y(tick)} y2={y(tick)} stroke="var(--line)" stroke-width="0.5" />
          <text x={LEFT - 4} y={y(tick) + 4} text-anchor="end" class="fill-quiet text-label">{tick}</text>
        {/each}
        {#each lines as row, i (i)}
          <path d={draw(row)} fill="none" stroke="var(--color-base-content)" stroke-opacity="0.35" stroke-width="1" />
        {/each}
      {/if}
    </svg>
  </div>
</figure>
