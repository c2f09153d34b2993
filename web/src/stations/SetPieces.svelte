<script lang="ts">
  /** Cloths, boards and the window pane on the floor, and the figure's shadow there. */
  import Handle from '../parts/Handle.svelte'
  import { round } from '../lib/changes'
  import { prefs } from '../lib/prefs.svelte'
  import { path, type Sheet } from '../lib/sheet'
  import type { Change, Evaluation, Plan, Thing } from '../lib/types'
  import { showLength } from '../lib/units'
  let {
    plan,
    evaluation,
    sheet,
    selected,
    select,
    change,
    settle,
  }: {
    plan: Plan
    evaluation: Evaluation | null
    sheet: Sheet
    selected: Thing | null
    select: (thing: Thing) => void
    change: (changes: Change[]) => void
    settle: () => void
  } = $props()

  const { z, x } = $derived(sheet)
  const say = (metres: number) => showLength(metres, prefs.length)
  let from = $state.raw<Plan>()
  const hold = () => (from = plan)
  const shadow = $derived(evaluation?.floor_shadow)
  const cells = $derived(
    shadow
      ? shadow.lost.flatMap((row, r) => row.flatMap((lost, c) => (lost >= 0.08 ? [{ x: shadow.x[c], z: shadow.z[r], lost }] : [])))
      : [],
  )
  const step = $derived(shadow ? [shadow.z[1] - shadow.z[0], shadow.x[1] - shadow.x[0]] : [0, 0])
</script>

<g aria-hidden="true" pointer-events="none">
  {#each cells as cell, i (i)}
    <rect
      x={z(cell.z - step[0] / 2)}
      y={x(cell.x + step[1] / 2)}
      width={step[0] * sheet.scale + 0.4}
      height={step[1] * sheet.scale + 0.4}
      fill="black"
      fill-opacity={0.62 * cell.lost}
    />
  {/each}
</g>

{#if plan.window}
  {@const pane = plan.window}
  <Handle
    label="Window pane, from above"
    now={pane.z}
    text="{say(pane.x)} across, {say(pane.z)} from the screen"
    x={z(pane.z)}
    y={x(pane.x)}
    scale={sheet.scale}
    selected={selected === 'window'}
    select={() => select('window')}
    start={hold}
    move={({ dx, dy }) =>
      change([
        { path: 'window.z', value: round(from!.window!.z + dx) },
        { path: 'window.x', value: round(from!.window!.x + dy) },
      ])}
    end={settle}
  >
    <path
      d="M{z(pane.z) - 2} {x(pane.x - pane.width / 2)}V{x(pane.x + pane.width / 2)}M{z(pane.z) + 2} {x(pane.x - pane.width / 2)}V{x(
        pane.x + pane.width / 2,
      )}"
      class="drawn"
      class:pick={selected === 'window'}
    />
  </Handle>
{/if}

{#each plan.flags as flag, i (flag.id)}
  {@const chosen = selected === `flag:${flag.id}`}
  {@const mx = flag.corners.reduce((s, c) => s + c[0], 0) / 4}
  {@const mz = flag.corners.reduce((s, c) => s + c[2], 0) / 4}
  {@const dark = flag.reflectance[0] < 0.4}
  <Handle
    label="Cloth {flag.id}, from above"
    now={mz}
    text="{say(mx)} across, {say(mz)} from the screen"
    x={z(mz)}
    y={x(mx)}
    scale={sheet.scale}
    selected={chosen}
    select={() => select(`flag:${flag.id}`)}
    start={hold}
    move={({ dx, dy }) =>
      change([{ path: `flags[${i}].corners`, value: from!.flags[i].corners.map(([a, b, c]) => [round(a + dy), b, round(c + dx)]) }])}
    end={settle}
  >
    <path
      d={path(
        flag.corners.map((c) => [z(c[2]), x(c[0])]),
        true,
      )}
      stroke-width="5"
      stroke={dark ? 'black' : 'white'}
      fill="none"
    />
    <path
      d={path(
        flag.corners.map((c) => [z(c[2]), x(c[0])]),
        true,
      )}
      class="drawn"
      class:pick={chosen}
      fill="none"
    />
  </Handle>
{/each}
