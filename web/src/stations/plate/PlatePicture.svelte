<script lang="ts">
  /** The plate with its marks: points that are dragged, or moved with the arrow keys. */
  import Handle from '../../parts/Handle.svelte'
  import { GROUPS, LINES, type Point } from './marks'
  let {
    url,
    ratio,
    points,
    horizon,
    change,
    settle,
  }: {
    url: string
    ratio: number
    points: Point[]
    horizon: number | null
    change: (id: string, u: number, v: number) => void
    settle: () => void
  } = $props()

  let width = $state(500)
  const height = $derived(width / ratio)
  let from = $state.raw({ u: 0, v: 0 })
  const clamp = (x: number) => Math.max(-0.02, Math.min(1.02, x))
</script>

<div class="relative w-full bg-base-300" bind:clientWidth={width}>
  <img src={url} alt="The plate" class="block w-full" />
  <svg class="absolute inset-0" {width} {height} role="group" aria-label="Marks on the plate">
    {#if horizon !== null}
      <line x1="0" x2={width} y1={horizon * height} y2={horizon * height} stroke="black" stroke-opacity="0.5" stroke-width="3" />
      <line x1="0" x2={width} y1={horizon * height} y2={horizon * height} stroke="var(--color-primary)" stroke-dasharray="8 5" />
    {/if}
    {#each GROUPS as group (group.id)}
      {@const own = points.filter((p) => p.group === group.id)}
      {#if own.length}
        {#each LINES[group.id] as [a, b], i (i)}
          {@const at = [own[a].u * width, own[a].v * height, own[b].u * width, own[b].v * height]}
          <line x1={at[0]} y1={at[1]} x2={at[2]} y2={at[3]} stroke="black" stroke-opacity="0.6" stroke-width="3" />
          <line
            x1={at[0]}
            y1={at[1]}
            x2={at[2]}
            y2={at[3]}
            stroke="white"
            stroke-width="1.2"
            stroke-dasharray={group.id === 'thing' && i ? '4 3' : 'none'}
          />
        {/each}
      {/if}
    {/each}
    {#each points as point (point.id)}
      <!-- The handle speaks in metres; here a hundredth of the picture's width is one of its steps. -->
      <Handle
        label="Mark: {point.label}"
        now={point.u}
        text="{(100 * point.u).toFixed(1)} % across, {(100 * point.v).toFixed(1)} % down"
        x={point.u * width}
        y={point.v * height}
        scale={width / 5}
        start={() => (from = { u: point.u, v: point.v })}
        move={({ dx, dy }) => change(point.id, clamp(from.u + dx / 5), clamp(from.v - (dy / 5) * ratio))}
        end={settle}
      >
        <circle cx={point.u * width} cy={point.v * height} r="6" fill="none" stroke="black" stroke-width="3.5" stroke-opacity="0.7" />
        <circle cx={point.u * width} cy={point.v * height} r="6" fill="none" stroke="white" stroke-width="1.5" />
        <circle cx={point.u * width} cy={point.v * height} r="1.2" fill="white" />
      </Handle>
    {/each}
  </svg>
</div>
