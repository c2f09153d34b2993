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
  const lines = $derived(
    map
      ? map.deviation.flatMap((row, r) => {
          const seen = row.map((v, c) => (map.judged[r][c] ? v + map.target : null))
          return seen.some((v) => v !== null) ? [seen] : []
        })
      : [],
  )
  const all = $derived(lines.flat().filter((v): v is number => v !== null))
  const low = $derived(Math.max(0, Math.floor((Math.min(map?.target_low ?? 40, ...all) - 4) / 10) * 10))
  const high = $derived(Math.ceil((Math.max(map?.target_high ?? 50, ...all) + 4) / 10) * 10)
  const y = $derived(scaleLinear([low, high], [HEIGHT, 0]))
  const x = $derived(scaleLinear([-0.5, (map?.x.length ?? 1) - 0.5], [LEFT, width]))
  const draw = (row: (number | null)[]) =>
    line<number | null>()
      .defined((v) => v !== null)
      .x((_, c) => x(c))
      .y((v) => y(v ?? 0))(row)
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
