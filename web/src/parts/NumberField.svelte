<script lang="ts">
  /** A number with its unit: comma or point, feet-and-inches, arrows to step; refuses what is out of range. */
  import { rangeOf } from '../lib/ranges'
  import { prefs } from '../lib/prefs.svelte'
  import { readLength, readNumber, showLength } from '../lib/units'
  let {
    label,
    value,
    unit = '',
    digits = 2,
    step = 0.1,
    field,
    min,
    max,
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
    onchange: (value: number) => void
  } = $props()

  const range = $derived(field ? rangeOf(field) : [min ?? -Infinity, max ?? Infinity])
  const id = $props.id()
  let typed = $state<string | null>(null)
  let wrong = $state('')

  const plain = $derived(Number(value.toFixed(digits)).toString())
  const shown = $derived(unit !== 'm' ? plain : prefs.length === 'm' ? value.toFixed(digits) : showLength(value, 'ft'))

  function take(text: string) {
    const read = unit === 'm' ? readLength(text, prefs.length) : readNumber(text)
    if (Number.isNaN(read)) wrong = 'Not a number'
    else if (read < range[0] || read > range[1]) wrong = `${range[0]} to ${range[1]}${unit ? ` ${unit}` : ''}`
    else {
      wrong = ''
      typed = null
      if (Math.abs(read - value) > 1e-9) onchange(read)
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
      onchange(Math.min(range[1], Math.max(range[0], Number((value + by * (event.shiftKey ? 10 : 1)).toFixed(6)))))
    }
  }
</script>

<div class="flex items-center justify-between gap-2">
  <label for={id} class="label-text">{label}</label>
  <span class="flex items-center gap-1">
    <input
      {id}
      class="input input-sm w-20 text-right"
      inputmode="decimal"
      autocomplete="off"
      value={typed ?? shown}
      aria-invalid={wrong !== ''}
      aria-describedby={wrong ? `${id}-wrong` : undefined}
      oninput={(event) => (typed = event.currentTarget.value)}
      onblur={() => typed !== null && take(typed)}
      onkeydown={key}
    />
    <span class="label-text w-6">{unit === 'm' && prefs.length === 'ft' ? '' : unit}</span>
  </span>
</div>
{#if wrong}<p id="{id}-wrong" class="label-text text-right !text-primary" role="alert">{wrong}</p>{/if}
