<script lang="ts">
  /** Where only a part of the screen is replaced, a sign or a display: its edges on the screen's plane. */
  import NumberField from '../../parts/NumberField.svelte'
  import Switch from '../../parts/Switch.svelte'
  import { session } from '../../lib/session.svelte'
  import type { Plan } from '../../lib/types'
  let { plan }: { plan: Plan } = $props()

  const corners = $derived(plan.targets.region ?? [])
  const edges = $derived.by(() => {
    const [xs, ys] = [corners.map(([x]) => x), corners.map(([, y]) => y)]
    return [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)]
  })
  const NAMES = ['left edge', 'right edge', 'lower edge', 'upper edge']
  /** A rectangle by its edges, from the left below. */
  const put = ([left, right, low, high]: number[]) =>
    session.change([
      {
        path: 'targets.region',
        value: [
          [left, low],
          [right, low],
          [right, high],
          [left, high],
        ],
      },
    ])
  function begin(on: boolean) {
    const { x_centre, bottom, width, height } = plan.screen
    if (on)
      put(
        [x_centre - width / 6, x_centre + width / 6, bottom + height / 3, bottom + (2 * height) / 3].map((v) => Math.round(v * 100) / 100),
      )
    else session.change([{ path: 'targets.region', value: [] }])
  }
</script>

<Switch label="Only a part of it" value={corners.length > 0} onchange={begin} />
{#if corners.length}
  {#each NAMES as label, i (label)}
    <NumberField
      {label}
      unit="m"
      step={0.05}
      min={-100}
      max={100}
      value={edges[i]}
      onchange={(value) => put(edges.map((edge, k) => (k === i ? value : edge)))}
    />
  {/each}
  {#if corners.length !== 4}<p class="label-text">{corners.length} corners in the plan; its edges make it a rectangle.</p>{/if}
{/if}
