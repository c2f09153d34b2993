<script lang="ts">
  /** A remedy being tried: what it would move, dashed beside what stands. */
  import type { Board } from '../../lib/board'
  import { peopleOf } from '../../lib/people'
  import type { Projection } from '../../lib/projection'
  import { path } from '../../lib/sheet'
  import type { Plan, Screen } from '../../lib/types'
  let { board, view, tried }: { board: Board; view: Projection; tried: Plan } = $props()

  const plan = $derived(board.plan)
  const differs = <T extends object>(one: T, other: T, ...fields: (keyof T)[]) => fields.some((field) => one[field] !== other[field])
  const placesDiffer = (one: readonly number[], other: readonly number[]) => one.some((value, axis) => value !== other[axis])
  const lens = $derived(view.at([tried.camera.x, tried.camera.y, tried.camera.z]))
  const flags = $derived(tried.flags.filter((flag) => !plan.flags.some((one) => one.id === flag.id)))
  const moving = $derived(
    tried.lights.flatMap((lamp, i) => {
      const was = plan.lights[i]
      return was && (placesDiffer(was.position, lamp.position) || placesDiffer(was.aim, lamp.aim)) ? [{ was, lamp }] : []
    }),
  )
  const run = (screen: Screen) => {
    const [left, right] = [screen.x_centre - screen.width / 2, screen.x_centre + screen.width / 2]
    const corners = [[right, 0, 0], [right, 0, screen.floor_run], [left, 0, screen.floor_run], [left, 0, 0]] // prettier-ignore
    return path(corners.map(view.at), true)
  }
  const line = (...places: (readonly number[])[]) => path(places.map(view.at))
</script>

<g class="pick" stroke-dasharray="4 3" aria-hidden="true" pointer-events="none" fill="none" stroke-width="1.5">
  {#if differs(tried.screen, plan.screen, 'width', 'x_centre', 'height', 'bottom')}
    <path d={line(...view.screen(tried.screen))} transform="translate(6 0)" stroke-width="2" />
  {/if}
  {#if differs(tried.screen, plan.screen, 'floor_run')}<path d={run(tried.screen)} stroke-width="2" />{/if}
  {#each peopleOf(tried) as person (person.thing)}
    {@const was = peopleOf(plan).find((one) => one.thing === person.thing)}
    {#if was && differs(person.subject, was.subject, 'x', 'z')}<path d={view.figure(person.subject)[0]} />{/if}
  {/each}
  {#if differs(tried.camera, plan.camera, 'x', 'y', 'z')}<rect x={lens[0] + 8} y={lens[1] - 7} width="17" height="14" />{/if}
  {#each flags as flag (flag.id)}<path d={path(flag.corners.map(view.at), true)} stroke-width="2.5" />{/each}
  {#each moving as { was, lamp } (lamp.id)}
    {@const [x, y] = view.at(lamp.position)}
    <path d={line(was.position, lamp.position)} />
    <path d={line(lamp.position, lamp.aim)} stroke-opacity="0.5" />
    <circle cx={x} cy={y} r="8" />
  {/each}
</g>
