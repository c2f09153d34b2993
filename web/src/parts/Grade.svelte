<script lang="ts">
  /** A number that people say in words: the word that is nearest stands there, the number behind it. */
  import Choice from './Choice.svelte'
  import NumberField from './NumberField.svelte'
  let {
    label,
    value,
    words,
    digits = 3,
    step = 0.005,
    field,
    unit = '',
    onchange,
  }: {
    label: string
    value: number
    words: [number, string][]
    digits?: number
    step?: number
    field: string
    unit?: string
    onchange: (value: number) => void
  } = $props()

  const nearest = $derived(words.reduce((best, one) => (Math.abs(one[0] - value) < Math.abs(best[0] - value) ? one : best)))
</script>

<Choice
  {label}
  value={String(nearest[0])}
  options={words.map(([number, word]) => [String(number), word])}
  onchange={(to) => onchange(Number(to))}
/>
<details>
  <summary class="label-text cursor-pointer text-right">{value.toFixed(digits)}{unit ? ` ${unit}` : ''}</summary>
  <NumberField {label} {unit} {digits} {step} {field} {value} {onchange} />
</details>
