<script lang="ts">
  /** Each lamp's beam on the floor, to where half of its strength is left: the core's angles. */
  import type { Board } from '../../lib/board'
  import type { Projection } from '../../lib/projection'
  import { path, type Sheet } from '../../lib/sheet'
  import type { Light } from '../../lib/types'
  let { board, view, sheet }: { board: Board; view: Projection; sheet: Sheet } = $props()

  const id = $props.id()
  const LONG = 2
  const STEPS = 17

  function wedge({ position: [px, , pz], aim: [ax, , az] }: Light, [left, right]: readonly number[]): string {
    const to = Math.atan2(ax - px, az - pz)
    const half = (STEPS - 1) / 2
    const arc = Array.from({ length: STEPS }, (_, i) => to + ((i < half ? left : right) * (1 - i / half) * Math.PI) / 180)
    return path([view.at([px, 0, pz]), ...arc.map((a) => view.at([px + LONG * Math.sin(a), 0, pz + LONG * Math.cos(a)]))], true)
  }
  const lit = $derived(
    board.plan.lights.flatMap((lamp) => {
      const width = board.evaluation?.lamps.find((one) => one.id === lamp.id)?.beam
      return width && lamp.on && lamp.dimmer > 0 ? [{ lamp, width }] : []
    }),
  )
</script>

<clipPath id="{id}-room">
  <rect
    x={sheet.z(sheet.extent.z0)}
    y={sheet.x(sheet.extent.x1)}
    width={(sheet.extent.z1 - sheet.extent.z0) * sheet.scale}
    height={(sheet.extent.x1 - sheet.extent.x0) * sheet.scale}
  />
</clipPath>
<g clip-path="url(#{id}-room)">
  {#each lit as { lamp, width } (lamp.id)}
    <path d={wedge(lamp, width)} fill="var(--color-base-content)" fill-opacity={0.03 + 0.05 * lamp.dimmer} />
  {/each}
</g>
