<script lang="ts">
  /** What stands before a lamp, in the order in which its light meets it. */
  import Choice from '../../parts/Choice.svelte'
  import NumberField from '../../parts/NumberField.svelte'
  import { MODIFIERS, MOST_BEYOND } from '../../lib/facts.generated'
  import { session } from '../../lib/session.svelte'
  import type { Light, Modifier } from '../../lib/types'
  import { set } from './set'
  let { lamp, at }: { lamp: Light; at: string } = $props()

  const KINDS: [string, string][] = [
    ['none', 'nothing'],
    ['softbox', 'soft box'],
    ['umbrella', 'umbrella'],
    ['diffusion', 'diffusion'],
    ['grid', 'grid'],
    ['doors', 'doors'],
  ]
  const LABEL: Record<string, [string, string]> = {
    width: ['Width', 'm'],
    height: ['Height', 'm'],
    distance: ['Before the lamp', 'm'],
    transmission: ['Lets through', ''],
    deg: ['Angle', '°'],
  }
  const chain = $derived([lamp.modifier, ...lamp.beyond])
  const path = (i: number) => (i === 0 ? `${at}.modifier` : `${at}.beyond[${i - 1}]`)
  const value = (one: Modifier, field: string) => (one as unknown as Record<string, number | null>)[field] ?? MODIFIERS[one.kind][field]

  /** Nothing in a place: what comes after it moves up. */
  function take(i: number, kind: string) {
    const next: object[] = chain.map((one, k) => (k === i ? { kind } : one))
    if (i === chain.length) next.push({ kind })
    const left = kind === 'none' ? next.filter((_, k) => k !== i) : next
    session.change([
      { path: `${at}.modifier`, value: left[0] ?? { kind: 'none' } },
      { path: `${at}.beyond`, value: left.slice(1) },
    ])
  }
</script>

{#each chain as one, i (i)}
  <!-- Two soft boxes have two widths: read aloud, each belongs to its own. -->
  <div class="contents" role="group" aria-label={`${i + 1}. ${KINDS.find(([kind]) => kind === one.kind)?.[1]}`}>
    <Choice label={i === 0 ? 'Before it' : 'Then'} value={one.kind} options={KINDS} onchange={(kind) => take(i, kind)} />
    {#each Object.keys(MODIFIERS[one.kind] ?? {}) as field (field)}
      {@const [label, unit] = LABEL[field]}
      <NumberField
        {label}
        {unit}
        field={`lights[].modifier.${field}`}
        digits={field === 'deg' ? 0 : 2}
        step={field === 'deg' ? 5 : 0.05}
        value={value(one, field)}
        onchange={set(`${path(i)}.${field}`)}
      />
    {/each}
  </div>
{/each}
{#if lamp.modifier.kind !== 'none' && lamp.beyond.length < MOST_BEYOND}
  <Choice label="Then" value="none" options={KINDS} onchange={(kind) => take(chain.length, kind)} />
{/if}
