<script lang="ts">
  /** A free-standing cloth or board: where it is, how large, black or white. */
  import Choice from '../../parts/Choice.svelte'
  import NumberField from '../../parts/NumberField.svelte'
  import { session } from '../../lib/session.svelte'
  import type { Plan } from '../../lib/types'
  let { plan, index }: { plan: Plan; index: number } = $props()

  const flag = $derived(plan.flags[index])
  const middle = $derived([0, 1, 2].map((axis) => flag.corners.reduce((sum, c) => sum + c[axis], 0) / 4))
  const NAMES = ['across', 'height', 'from screen']
  const COLOURS: [string, string][] = [
    ['0.03', 'black'],
    ['0.18', 'grey'],
    ['0.85', 'white'],
  ]
  const tone = $derived(
    COLOURS.reduce((a, b) => (Math.abs(Number(b[0]) - flag.reflectance[0]) < Math.abs(Number(a[0]) - flag.reflectance[0]) ? b : a))[0],
  )
  const side = (a: readonly number[], b: readonly number[]) => Math.hypot(...a.map((v, i) => v - b[i]))

  const put = (corners: number[][]) => session.change([{ path: `flags[${index}].corners`, value: corners }])
  const move = (axis: number) => (value: number) =>
    put(flag.corners.map((c) => c.map((v, i) => (i === axis ? v + value - middle[axis] : v))))
  /** Stretch along the two ways of the cloth, its middle kept. */
  const stretch = (along: boolean) => (value: number) => {
    const [a, b, , d] = flag.corners
    const now = side(a, along ? d : b)
    if (now < 1e-6) return
    const way = a.map((v, i) => ((along ? d : b)[i] - v) / now)
    put(
      flag.corners.map((c) => {
        const off = c.reduce((sum, v, i) => sum + (v - middle[i]) * way[i], 0)
        return c.map((v, i) => Number((v + off * (value / now - 1) * way[i]).toFixed(4)))
      }),
    )
  }
  const remove = () => {
    // The list first: with nothing selected, the index would be gone.
    const rest = plan.flags.filter((_, i) => i !== index)
    session.selected = null
    session.change([{ path: 'flags', value: rest }])
  }
</script>

{#each NAMES as name, axis (name)}<NumberField
    label="middle, {name}"
    unit="m"
    step={0.05}
    min={-100}
    max={100}
    value={middle[axis]}
    onchange={move(axis)}
  />{/each}
<NumberField
  label="High"
  unit="m"
  step={0.1}
  min={0.05}
  max={20}
  value={side(flag.corners[0], flag.corners[1])}
  onchange={stretch(false)}
/>
<NumberField label="Long" unit="m" step={0.1} min={0.05} max={20} value={side(flag.corners[0], flag.corners[3])} onchange={stretch(true)} />
<Choice
  label="Cloth"
  value={tone}
  options={COLOURS}
  onchange={(value) => session.change([{ path: `flags[${index}].reflectance`, value: [Number(value), Number(value), Number(value)] }])}
/>
<p class="label-text">Ballast on both stands; nothing over people without a second fixing.</p>
<button type="button" class="btn btn-sm mt-2" onclick={remove}>Remove it</button>
