<script lang="ts">
  import Grip from './Grip.svelte'
  import type { Board } from '../../lib/board'
  import { moved, type Projection } from '../../lib/projection'
  import type { Camera } from '../../lib/types'
  let { board, view }: { board: Board; view: Projection } = $props()

  const camera = $derived(board.plan.camera)
  const place = (of: Camera) => [of.x, of.y, of.z] as const
  const [x, y] = $derived(view.at(place(camera)))
  const chosen = $derived(board.selected === 'camera')
</script>

<Grip
  {board}
  {view}
  thing="camera"
  label="Camera, {view.view}"
  place={place(camera)}
  offset={8}
  reach={18}
  move={(was, by) => {
    const [nx, ny, nz] = moved(view, place(was.camera), by)
    const now = { x: nx, y: ny, z: nz }
    return view.axes.map((axis) => ({ path: `camera.${axis}`, value: now[axis] }))
  }}
>
  <g transform="translate({x} {y}) rotate({view.turned(camera)})">
    <path d="M0 -6V6M0 -5L8 -3M0 5L8 3" class="drawn" class:pick={chosen} />
    <rect x="8" y="-7" width="17" height="14" fill="var(--color-base-100)" class="drawn" class:pick={chosen} />
  </g>
</Grip>
