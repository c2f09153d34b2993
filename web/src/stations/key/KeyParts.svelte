<script lang="ts">
  /** The quality of one key, or of two beside each other, part by part; the single number comes last. */
  import Words from '../../parts/Words.svelte'
  import { PARTS } from './words'
  import type { TestKey } from '../../lib/types'
  let { keys, names = [] }: { keys: TestKey[]; names?: string[] } = $props()
  const first = $derived(keys[0])
  let open = $state('')
  const second = $derived(keys.length > 1 ? null : first.second_keyer)
  const value = (key: TestKey, part: string) => key.parts.find((p) => p.name === part)
</script>

<table class="table table-xs mt-1">
  <thead>
    <tr class="label-text text-left">
      <th class="font-normal">Part</th>
      {#each keys as _, i (i)}<th class="text-right font-normal">{names[i] ?? 'plan'}</th>{/each}
      {#if keys.length === 1}<th class="text-right font-normal">ideal</th><th class="text-right font-normal">border</th>{/if}<th
        class="text-right font-normal">weight</th
      >
    </tr>
  </thead>
  <tbody>
    {#each first.parts as p (p.name)}
      {@const [label, unit, digits, how] = PARTS[p.name] ?? [p.name, '', 3, '']}
      <tr class="border-t border-line" title={unit}>
        <td class="py-0.5">
          <button
            type="button"
            class="cursor-pointer text-left hover:text-primary"
            aria-expanded={open === p.name}
            onclick={() => (open = open === p.name ? '' : p.name)}>{label}</button
          >
          <span class="label-text block">{unit}</span>
          {#if open === p.name}<span class="block max-w-72 text-quiet"
              ><Words text={how} /> It costs {p.halvings.toFixed(2)} halvings of the quality.</span
            >{/if}
        </td>
        {#each keys as key, i (i)}
          {@const own = value(key, p.name)}
          {@const bad = own?.value != null && own.border != null && own.value > own.border}
          <td class="w-14 text-right" class:text-primary={bad} class:font-semibold={bad}>{own?.value?.toFixed(digits) ?? 'not seen'}</td>
        {/each}
        {#if keys.length === 1}
          <td class="w-14 text-right text-quiet">{p.ideal?.toFixed(digits) ?? '–'}</td>
          <td class="w-14 text-right text-quiet">{p.border?.toFixed(digits) ?? '–'}</td>
        {/if}
        <td class="w-14 text-right text-quiet">{p.weight.toFixed(2)}</td>
      </tr>
    {/each}
  </tbody>
</table>
{#each keys as key, i (i)}
  <p class="label-text mt-1">
    {names[i] ? `${names[i]}: residue` : 'Residue'}
    {key.residue_percent?.toFixed(2) ?? '–'} %, holes {key.holes_percent?.toFixed(2) ?? '–'} %, matte flickers by {key.flicker_percent?.toFixed(
      1,
    ) ?? '–'} % along its edge (not scored).
  </p>
{/each}
{#if second}
  <p class="label-text mt-1">
    By the chroma distance: edge {second.edge_error?.toFixed(3) ?? '–'}, hair {second.hair_error?.toFixed(3) ?? '–'}, residue {second.residue_percent?.toFixed(
      2,
    ) ?? '–'} %, holes {second.holes_percent?.toFixed(2) ?? '–'} %. It is not scored.
  </p>
{/if}
{#if first.formula == null}
  <p class="mt-1 text-primary">This key was made by an older version, on another scale: key again to compare.</p>
{:else}
  <p class="label-text mt-1">
    {first.formula === 'larger channel'
      ? `Keyed against the larger of the other channels, which keeps more of what is worn; against their mean: ${first.other_quality?.toFixed(0)}.`
      : `Keyed against the mean of the other channels; against the larger of them: ${first.other_quality?.toFixed(0)}.`}
    Ideal and border are the same for every plan: no fault to be seen, and a capture at 1/50 s, ISO 1600, 4:2:0, a fifth uneven.
  </p>
{/if}
{#each keys as key, i (i)}
  <p class="mt-2 flex items-baseline justify-between border-t border-line pt-2">
    <span
      >{names[i] ? `Quality, ${names[i]}` : 'Quality, of 100'}{#if key.person}<span class="label-text block"
          >of {key.person}, whom it costs most</span
        >{/if}</span
    ><span class="text-figure font-light">{key.quality?.toFixed(0)}</span>
  </p>
{/each}
