<script lang="ts">
  /** A number with its unit: comma or point, feet-and-inches, arrows to step; refuses what is out of range. */
  import Label from './Label.svelte'
  import { rangeOf } from '../lib/ranges'
  import { prefs } from '../lib/prefs.svelte'
  import { readLength, readNumber } from '../lib/typed'
  import { showLength } from '../lib/units'
  let {
    label,
    value,
    unit = '',
    digits = 2,
    step = 0.1,
    field,
    min,
    max,
    read = (text) => (unit === 'm' ? readLength(text, prefs.length) : readNumber(text, unit)),
    onchange,
  }: {
    label: string
    value: number
    unit?: string
    digits?: number
    step?: number
    /** Path of the field in the plan or the kit, places in lists as []: its range comes from the core. */
    field?: string
    min?: number
    max?: number
    /** How what is typed becomes the number, where it may be written in another way than others. */
    read?: (text: string) => number
    onchange: (value: number) => void
  } = $props()

  const range = $derived(field ? rangeOf(field) : [min ?? -Infinity, max ?? Infinity])
  const id = $props.id()
  let typed = $state<string | null>(null)
  let wrong = $state('')

  const plain = $derived(Number(value.toFixed(digits)).toString())
  const shown = $derived(unit !== 'm' ? plain : prefs.length === 'm' ? value.toFixed(digits) : showLength(value, 'ft'))

  const told = (bound: number) => (unit === 'm' ? showLength(bound, prefs.length) : `${Number(bound.toPrecision(6))} ${unit}`.trim())
  const example = $derived(unit === 'm' ? (prefs.length === 'm' ? 'like 2.75 or 275 cm' : 'like 8′ 6″ or 8 6') : `like ${plain}`)

  function take(text: string) {
    const found = read(text)
    if (Number.isNaN(found)) wrong = `No number: ${example}`
    else if (found < range[0]) wrong = `At least ${told(range[0])}`
    else if (found > range[1]) wrong = `At most ${told(range[1])}`
    else {
      wrong = ''
      typed = null
      if (Math.abs(found - value) > 1e-9) onchange(found)
    }
  }
  function key(event: KeyboardEvent) {
    if (event.key === 'Enter') take((event.target as HTMLInputElement).value)
    if (event.key === 'Escape') {
      typed = null
      wrong = ''
    }
    const by = { ArrowUp: step, ArrowDown: -step }[event.key]
    if (by !== undefined) {
      event.preventDefault()
      // From what stands in the field, taken over or not yet.
      const from = typed === null ? value : read(typed)
      const to = Number(((Number.isNaN(from) ? value : from) + by * (event.shiftKey ? 10 : 1)).toFixed(6))
      typed = null
      wrong = ''
      onchange(Math.min(range[1], Math.max(range[0], to)))
    }
  }
</script>

<div class="flex items-center justify-between gap-2">
  <Label {label} {id} />
  <span class="flex items-center gap-1">
    <input
      {id}
      class="input input-sm w-20 text-right"
      inputmode="decimal"
      autocomplete="off"
      value={typed ?? shown}
      aria-invalid={wrong !== ''}
      aria-describedby="{wrong ? `${id}-wrong ` : ''}{id}-means"
      oninput={(event) => (typed = event.currentTarget.value)}
      onblur={() => typed !== null && take(typed)}
      onkeydown={key}
    />
    <span class="label-text w-6">{unit === 'm' && prefs.length === 'ft' ? '' : unit}</span>
  </span>
</div>
{#if wrong}<p id="{id}-wrong" class="label-text text-right !text-primary" role="alert">{wrong}</p>{/if}
