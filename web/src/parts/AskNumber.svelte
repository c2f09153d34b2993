<script lang="ts">
  /** A number that may be left out; what is usual stands there faintly until something is typed. */
  import { prefs } from '../lib/prefs.svelte'
  import { readLength, readNumber } from '../lib/typed'
  import { showLength } from '../lib/units'
  let {
    label,
    value,
    unit,
    usual = '',
    low,
    high,
    onchange,
  }: {
    label: string
    value: number | null
    unit: string
    usual?: string
    low: number
    high: number
    onchange: (value: number | null) => void
  } = $props()

  const id = $props.id()
  let wrong = $state('')
  const told = (number: number) => (unit === 'm' ? showLength(number, prefs.length) : `${number} ${unit}`)
  const shown = $derived(value === null ? '' : unit === 'm' ? showLength(value, prefs.length).replace(/ m$/, '') : String(value))

  function take(text: string) {
    wrong = ''
    if (!text.trim()) return onchange(null)
    const read = unit === 'm' ? readLength(text, prefs.length) : readNumber(text, unit)
    if (Number.isNaN(read)) wrong = unit === 'm' ? 'like 5, 320 cm or 16′ 5″' : 'a number'
    else if (read < low || read > high) wrong = `${told(low)} to ${told(high)}`
    else onchange(read)
  }
</script>

<span class="inline-flex flex-col">
  <label for={id} class="label-text">{label}{unit === 'm' && prefs.length === 'ft' ? '' : `, ${unit}`}</label>
  <input
    {id}
    class="input input-sm w-20"
    inputmode="decimal"
    autocomplete="off"
    placeholder={usual}
    value={shown}
    aria-invalid={wrong !== ''}
    aria-describedby={wrong ? `${id}-wrong` : undefined}
    onchange={(event) => take(event.currentTarget.value)}
  />
  {#if wrong}<span id="{id}-wrong" class="label-text !text-primary" role="alert">{wrong}</span>{/if}
</span>
