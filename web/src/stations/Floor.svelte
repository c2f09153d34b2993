<script lang="ts">
  /** The floor from above: room, screen with its run and wings, shadow and beams on the ground, what stands there. */
  import Beams from './marks/Beams.svelte'
  import EdgeMark from './marks/EdgeMark.svelte'
  import FloorShadow from './marks/FloorShadow.svelte'
  import RunLight from './marks/RunLight.svelte'
  import Sight from './marks/Sight.svelte'
  import Things from './marks/Things.svelte'
  import type { Board } from '../lib/board'
  import { round } from '../lib/changes'
  import { prefs } from '../lib/prefs.svelte'
  import { fromAbove } from '../lib/projection'
  import type { Sheet } from '../lib/sheet'
  import type { Change, Plan } from '../lib/types'
  import { showLength } from '../lib/units'
  let { board, sheet, tried }: { board: Board; sheet: Sheet; tried: Plan | null } = $props()

  const view = $derived(fromAbove(sheet))
  const { z, x } = $derived(sheet)
  const say = (metres: number) => showLength(metres, prefs.length)
  const room = $derived(board.plan.room)
  const screen = $derived(board.plan.screen)
  const hue = $derived(`var(--screen-${screen.hue})`)
  const left = $derived(screen.x_centre - screen.width / 2)
  const right = $derived(screen.x_centre + screen.width / 2)
  const edges = $derived([
    { side: -1, at: left, name: 'Left' },
    { side: 1, at: right, name: 'Right' },
  ] as const)
  const wings = $derived([
    { at: left, deep: screen.wing_left },
    { at: right, deep: screen.wing_right },
  ])
  const runAt = $derived(screen.x_centre - screen.width / 4)

  /** One edge is pulled, the other stays. */
  function widened(was: Plan['screen'], side: -1 | 1, by: number): Change[] {
    const width = Math.min(50, Math.max(0.1, was.width + side * by))
    return [
      { path: 'screen.width', value: round(width) },
      { path: 'screen.x_centre', value: round(was.x_centre + (side * (width - was.width)) / 2, 3) },
    ]
  }
</script>

{#if room.kind === 'interior'}
  <rect
    class="drawn"
    stroke-opacity="0.6"
    x={z(room.z_min)}
    y={x(room.x_max)}
    width={(room.z_max - room.z_min) * sheet.scale}
    height={(room.x_max - room.x_min) * sheet.scale}
  />
{/if}
<text pointer-events="none" x={z(sheet.extent.z1) - 4} y={x(sheet.extent.x1) + 12} text-anchor="end">right, as the camera sees</text>
<text pointer-events="none" x={z(sheet.extent.z1) - 4} y={x(sheet.extent.x0) - 5} text-anchor="end">left</text>
<line class="hair" x1={z(sheet.extent.z0)} x2={z(sheet.extent.z1)} y1={x(0)} y2={x(0)} stroke-dasharray="8 3 1 3" />
<Sight {board} {view} />

{#if screen.floor_run > 0}
  <rect x={z(0)} y={x(right)} width={screen.floor_run * sheet.scale} height={screen.width * sheet.scale} fill={hue} fill-opacity="0.28" />
{/if}
{#if board.evaluation}<RunLight map={board.evaluation.map} {sheet} />{/if}
<line x1={z(0)} x2={z(0)} y1={x(left)} y2={x(right)} stroke={hue} stroke-width="5" />
{#each wings as wing (wing.at)}
  {#if wing.deep > 0}<line x1={z(0)} x2={z(wing.deep)} y1={x(wing.at)} y2={x(wing.at)} stroke={hue} stroke-width="4" />{/if}
{/each}
{#each edges as edge (edge.side)}
  <EdgeMark
    {board}
    {view}
    thing="screen"
    label="{edge.name} edge of the screen"
    place={[edge.at, 0, 0]}
    now={edge.at}
    text="{say(edge.at)}, width {say(screen.width)}"
    size={[10, 6]}
    move={(was, by) => widened(was.screen, edge.side, by.dy)}
  />
{/each}
{#if screen.floor_run > 0}
  <EdgeMark
    {board}
    {view}
    thing="screen"
    label="End of the floor run"
    place={[runAt, 0, screen.floor_run]}
    now={screen.floor_run}
    text={say(screen.floor_run)}
    size={[6, 12]}
    move={(was, by) => [{ path: 'screen.floor_run', value: round(Math.min(20, Math.max(0, was.screen.floor_run + by.dx))) }]}
  />
{/if}

<Beams {board} {view} {sheet} />
{#if board.evaluation?.floor_shadow}<FloorShadow shadow={board.evaluation.floor_shadow} {sheet} />{/if}
<Things {board} {view} {tried} />
