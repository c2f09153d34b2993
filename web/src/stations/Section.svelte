<script lang="ts">
  /** The true side section: floor, walls and ceiling, the screen's height, what stands there. */
  import EdgeMark from './marks/EdgeMark.svelte'
  import Sight from './marks/Sight.svelte'
  import Things from './marks/Things.svelte'
  import type { Board } from '../lib/board'
  import { round } from '../lib/changes'
  import { prefs } from '../lib/prefs.svelte'
  import { fromTheSide } from '../lib/projection'
  import { path, type Sheet } from '../lib/sheet'
  import type { Plan } from '../lib/types'
  import { showLength } from '../lib/units'
  let { board, sheet, tried }: { board: Board; sheet: Sheet; tried: Plan | null } = $props()

  const view = $derived(fromTheSide(sheet))
  const { z, y } = $derived(sheet)
  const room = $derived(board.plan.room)
  const screen = $derived(board.plan.screen)
  /** A screen that hangs above the floor has no bend; nor is one wider than the run is long. */
  const bend = $derived(screen.bottom > 0.02 || screen.floor_run <= 0 ? 0 : Math.min(screen.curve_radius, screen.floor_run, screen.height))
  const hue = $derived(`var(--screen-${screen.hue})`)
  const top = $derived(screen.bottom + screen.height)
  const walls = $derived(
    path(
      [
        [z(room.z_min), y(room.height)],
        [z(room.z_max), y(room.height)],
        [z(room.z_max), y(0)],
        [z(room.z_min), y(0)],
      ],
      room.kind === 'interior',
    ),
  )
</script>

<path class="drawn" stroke-opacity="0.6" d={walls} />
<line class="drawn" x1={z(sheet.extent.z0)} x2={z(sheet.extent.z1)} y1={y(0)} y2={y(0)} />
<Sight {board} {view} />

<line x1={z(0)} x2={z(0)} y1={y(screen.bottom + bend)} y2={y(top)} stroke={hue} stroke-width="5" />
{#if bend > 0}
  <path
    d="M{z(0)} {y(bend)}A{bend * sheet.scale} {bend * sheet.scale} 0 0 0 {z(bend)} {y(0) - 1.5}"
    fill="none"
    stroke={hue}
    stroke-width="4"
  />
{/if}
{#if screen.floor_run > bend}
  <line x1={z(bend)} x2={z(screen.floor_run)} y1={y(0) - 1.5} y2={y(0) - 1.5} stroke={hue} stroke-width="4" />
{/if}
<EdgeMark
  {board}
  {view}
  thing="screen"
  label="Top edge of the screen"
  place={[0, top, 0]}
  now={screen.height}
  text="height {showLength(screen.height, prefs.length)}"
  size={[10, 6]}
  move={(was, by) => [{ path: 'screen.height', value: round(Math.min(50, Math.max(0.1, was.screen.height + by.dy))) }]}
/>
<Things {board} {view} {tried} />
