<script lang="ts">
  /** A figure shaded by its share of screen colour, the chosen place outlined. */
  import type { Plan, Probe } from '../../lib/types'
  let { plan, probes, chosen }: { plan: Plan; probes: Probe[]; chosen: string } = $props()

  const W = 190
  const H = 300
  const share = (name: string) => Math.max(0, probes.find((p) => p.name === name)?.share ?? 0)
  /** 0 at none, 1 from a fifth on: a share of 20 % is as bad as it needs to look. */
  const strength = (name: string) => Math.min(1, share(name) / 20)
  const hue = $derived(`var(--screen-${plan.screen.hue})`)
  const at = (x: number, y: number): [number, number] => [W / 2 + x * 270, H - 8 - y * 282]
  const PARTS = $derived([
    { d: limb(0.05, 0.47, 0.05, 0.06, 0.05, 0.03), of: 'legs' },
    { d: limb(-0.05, 0.47, 0.05, -0.06, 0.05, 0.03), of: 'legs' },
    { d: limb(0.105, 0.79, 0.03, 0.145, 0.5, 0.02), of: 'left arm' },
    { d: limb(-0.105, 0.79, 0.03, -0.145, 0.5, 0.02), of: 'right arm' },
    { d: limb(0.145, 0.49, 0.02, 0.145, 0.45, 0.02), of: 'hands' },
    { d: limb(-0.145, 0.49, 0.02, -0.145, 0.45, 0.02), of: 'hands' },
    { d: limb(0.06, 0.02, 0.03, 0.09, 0.015, 0.02), of: 'feet' },
    { d: limb(-0.06, 0.02, 0.03, -0.09, 0.015, 0.02), of: 'feet' },
    { d: limb(0, 0.8, 0.095, 0, 0.52, 0.085), of: 'chest' },
    { d: limb(-0.07, 0.815, 0.02, 0.07, 0.815, 0.02), of: 'shoulders' },
    { d: limb(0, 0.93, 0.05, 0, 0.915, 0.045), of: 'face' },
    { d: limb(0.042, 0.94, 0.012, 0.042, 0.91, 0.012), of: 'left cheek' },
    { d: limb(-0.042, 0.94, 0.012, -0.042, 0.91, 0.012), of: 'right cheek' },
    { d: limb(-0.018, 0.872, 0.011, 0.018, 0.872, 0.011), of: 'chin' },
  ])
  function limb(ax: number, ay: number, ar: number, bx: number, by: number, br: number): string {
    const [x0, y0] = at(ax, ay)
    const [x1, y1] = at(bx, by)
    const along = Math.atan2(y1 - y0, x1 - x0)
    const edge = (x: number, y: number, r: number, from: number) =>
      Array.from({ length: 9 }, (_, i) => from + (Math.PI * i) / 8).map(
        (t) => `${(x + r * 276 * Math.cos(t)).toFixed(1)} ${(y + r * 276 * Math.sin(t)).toFixed(1)}`,
      )
    return `M${[...edge(x1, y1, br, along - Math.PI / 2), ...edge(x0, y0, ar, along + Math.PI / 2)].join('L')}Z`
  }
  const said = $derived(
    probes
      .filter((p) => p.framed && p.share !== null)
      .map((p) => `${p.name} ${p.share!.toFixed(0)} %`)
      .join(', '),
  )
</script>

<svg width={W} height={H} role="img" aria-label="Share of screen colour on the figure: {said}">
  {#each PARTS as part, i (i)}
    {@const framed = probes.find((p) => p.name === part.of)?.framed ?? true}
    <path d={part.d} fill="var(--figure)" fill-opacity={framed ? 1 : 0.35} />
    <path
      d={part.d}
      fill={hue}
      fill-opacity={strength(part.of) * (framed ? 1 : 0.35)}
      stroke={chosen === part.of ? 'var(--color-primary)' : 'black'}
      stroke-opacity={chosen === part.of ? 1 : 0.4}
      stroke-width={chosen === part.of ? 1.6 : 0.7}
    >
      <title>{part.of}: {share(part.of).toFixed(1)} %</title>
    </path>
  {/each}
</svg>
