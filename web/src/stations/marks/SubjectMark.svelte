<script lang="ts">
  /** The figure on its mark and how far its action reaches; the reach can be pulled when it is chosen. */
  import EdgeMark from './EdgeMark.svelte'
  import Grip from './Grip.svelte'
  import { upOf } from '../../lib/body'
  import type { Board } from '../../lib/board'
  import { round } from '../../lib/changes'
  import type { Move } from '../../lib/drag'
  import { prefs } from '../../lib/prefs.svelte'
  import { moved, type Projection } from '../../lib/projection'
  import type { Subject } from '../../lib/types'
  import { showLength } from '../../lib/units'
  let { board, view, subject: s }: { board: Board; view: Projection; subject: Subject } = $props()

  const e = $derived(s.envelope)
  const chosen = $derived(board.selected === 'subject')
  const [low, high] = $derived(board.evaluation?.action_heights ?? [0, upOf(s, 1)])
  const [left, top] = $derived(view.at([s.x + e.right, high, s.z - e.back]))
  const [right, foot] = $derived(view.at([s.x - e.left, low, s.z + e.front]))
  const outlines = $derived(view.figure(s))
  const FURTHEST = 20
  const sides = $derived({
    left: { place: [s.x - e.left, 0, s.z], outward: (by: Move) => -view.shift(by)[0], says: 'left' },
    right: { place: [s.x + e.right, 0, s.z], outward: (by: Move) => view.shift(by)[0], says: 'right' },
    front: { place: [s.x, 0, s.z + e.front], outward: (by: Move) => view.shift(by)[2], says: 'front' },
    back: { place: [s.x, 0, s.z - e.back], outward: (by: Move) => -view.shift(by)[2], says: 'back' },
    up: { place: [s.x, high, s.z], outward: (by: Move) => view.shift(by)[1], says: 'above the head' },
  })
</script>

<rect class="hair" x={left} y={top} width={right - left} height={foot - top} stroke-dasharray="3 3" />
{#if chosen}
  {#each view.reach as side (side)}
    {@const { place, outward, says } = sides[side]}
    <EdgeMark
      {board}
      {view}
      thing="subject"
      label="Reach of the action, {says}"
      {place}
      now={e[side]}
      text={showLength(e[side], prefs.length)}
      size={[6, 6]}
      reach={9}
      move={(was, by) => [
        {
          path: `subject.envelope.${side}`,
          value: round(Math.min(FURTHEST, Math.max(0, was.subject!.envelope[side] + outward(by)))),
        },
      ]}
    />
  {/each}
{/if}
<Grip
  {board}
  {view}
  thing="subject"
  label="Subject, {view.view}"
  place={[s.x, upOf(s, 0.6), s.z]}
  axes={view.axes.filter((axis) => axis !== 'y')}
  reach={20}
  move={(was, by) => {
    const [x, , z] = moved(view, [was.subject!.x, 0, was.subject!.z], by)
    const now = { x, z }
    return view.axes.flatMap((axis) => (axis === 'y' ? [] : [{ path: `subject.${axis}`, value: now[axis] }]))
  }}
>
  {#each outlines as outline, i (i)}
    <path d={outline} fill="var(--figure)" fill-opacity={i ? 1 : 0.55} class="drawn" class:pick={chosen} />
  {/each}
</Grip>
