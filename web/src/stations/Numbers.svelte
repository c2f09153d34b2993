<script lang="ts">
  /** The ledger of readings: each can be asked for its formula, its inputs and its source. */
  import Words from '../parts/Words.svelte'
  import { prefs } from '../lib/prefs.svelte'
  import type { Evaluation } from '../lib/types'
  import { showValue } from '../lib/units'
  let { evaluation }: { evaluation: Evaluation | null } = $props()

  let open = $state<string | null>(null)
  const show = (value: number | null, unit: string, digits: number) => showValue(value, unit, digits, prefs.length, prefs.light)
  const inputDigits = (value: number) => (value !== 0 && Math.abs(value) < 0.1 ? 4 : Math.abs(value) < 10 ? 2 : 0)
</script>

<ul class="pt-1">
  {#each evaluation?.numbers ?? [] as number (number.id)}
    <li class="border-b border-line">
      <button
        type="button"
        class="flex w-full cursor-pointer items-baseline justify-between py-1.5 text-left hover:bg-base-200"
        aria-expanded={open === number.id}
        onclick={() => (open = open === number.id ? null : number.id)}
      >
        <span>{number.label}</span>
        <span class="font-semibold">{show(number.value, number.unit, number.digits)}</span>
      </button>
      {#if open === number.id}
        <div class="pb-2">
          <p><Words text={`${number.label}: ${number.formula}`} /></p>
          {#each number.inputs as input (input.name)}
            <p class="flex justify-between text-quiet">
              <span>{input.name}</span><span>{show(input.value, input.unit, inputDigits(input.value))}</span>
            </p>
          {/each}
          <p class="label-text mt-1">{number.source}</p>
        </div>
      {/if}
    </li>
  {/each}
</ul>
