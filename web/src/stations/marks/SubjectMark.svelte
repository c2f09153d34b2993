<script lang="ts">
  /** A figure on its mark and how far its action reaches; the reach can be pulled when it is chosen. */
  import EdgeMark from './EdgeMark.svelte'
  import Grip from './Grip.svelte'
  import { upOf } from '../../lib/body'
  import type { Board } from '../../lib/board'
  import { round } from '../../lib/changes'
  import type { Move } from '../../lib/drag'
  import { prefs } from '../../lib/prefs.svelte'
  import { moved, type Projection } from '../../lib/projection'
  import type { Person } from '../../lib/people'
  import type { Plan } from '../../lib/types'
  import { showLength } from '../../lib/units'
  let { board, view, person }: { board: Board; view: Projection; person: Person } = $props()

  const s = $derived(person.subject)
  const e = $derived(s.envelope)
  const chosen = $derived(board.selected === person.thing)
  const [low, high] = $derived(heights())

  /** The subject's as the server says; a companion is framed alike. */
  function heights(): readonly [number, number] {
    const own = board.evaluation?.action_heights
    const subject = board.plan.subject
    if (!own || !subject) return [0, upOf(s, 1)]
    return person.index === null ? [own[0], own[1]] : [(own[0] * s.height) / subject.height, upOf(s, 1) + e.up]
  }
  const before = (was: Plan) => (person.index === null ? was.subject! : was.companions[person.index])
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
      thing={person.thing}
      label="{person.index === null ? 'Reach of the action' : `Reach of ${person.name}`}, {says}"
      {place}
      now={e[side]}
      text={showLength(e[side], prefs.length)}
      size={[6, 6]}
      reach={9}
      move={(was, by) => [
        {
          path: `${person.path}.envelope.${side}`,
          value: round(Math.min(FURTHEST, Math.max(0, before(was).envelope[side] + outward(by)))),
        },
      ]}
    />
  {/each}
{/if}
<Grip
  {board}
  {view}
  thing={person.thing}
  label="{person.name}, {view.view}"
  place={[s.x, upOf(s, 0.6), s.z]}
  axes={view.axes.filter((axis) => axis !== 'y')}
  reach={20}
  move={(was, by) => {
    const [x, , z] = moved(view, [before(was).x, 0, before(was).z], by)
    const now = { x, z }
    return view.axes.flatMap((axis) => (axis === 'y' ? [] : [{ path: `${person.path}.${axis}`, value: now[axis] }]))
  }}
>
  {#each outlines as outline, i (i)}
    <path d={outline} fill="var(--figure)" fill-opacity={i ? 1 : 0.55} class="drawn" class:pick={chosen} />
  {/each}
</Grip>
