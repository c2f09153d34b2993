<script lang="ts">
  /** Nine readings typed with the number keys, and the zebra method: the same verdict without a scope. */
  import State from '../../parts/State.svelte'
  import { readNine, readZebra } from '../../lib/checkApi'
  import { session } from '../../lib/session.svelte'
  import type { HandReading, ZebraReading } from '../../lib/types'

  type Unit = 'percent' | 'lux' | 'foot-candle' | 'stops'
  const UNITS: [Unit, string][] = [
    ['percent', '%'],
    ['lux', 'lux'],
    ['foot-candle', 'foot-candles'],
    ['stops', 'stops'],
  ]
  const NAMES = [
    'upper left',
    'upper centre',
    'upper right',
    'middle left',
    'centre',
    'middle right',
    'lower left',
    'lower centre',
    'lower right',
  ]
  let unit = $state<Unit>('percent')
  let texts = $state<string[]>(Array(9).fill(''))
  let found = $state.raw<HandReading | null>(null)
  let error = $state('')
  let first = $state('')
  let full = $state('')
  let zebra = $state.raw<ZebraReading | null>(null)
  let zebraError = $state('')
  let cells = $state<HTMLInputElement[]>([])

  const number = (text: string) => (text.trim() === '' ? null : Number(text.replace(',', '.').replace('−', '-')))
  async function read() {
    const values = texts.map(number)
    const bad = values.findIndex((v) => v !== null && !Number.isFinite(v))
    if (bad >= 0) return void ((error = `${NAMES[bad]}: a number is needed`), (found = null))
    await readNine(session.plan!, values, unit).then(
      (r) => ((found = r), (error = '')),
      (err: Error) => ((error = err.message), (found = null)),
    )
  }
  async function stripes() {
    const [a, b] = [number(first), number(full)]
    if (a === null || b === null) return
    await readZebra(a, b).then(
      (r) => ((zebra = r), (zebraError = '')),
      (err: Error) => ((zebraError = err.message), (zebra = null)),
    )
  }
  function key(event: KeyboardEvent, i: number) {
    const step = { Enter: 1, ArrowRight: 1, ArrowLeft: -1, ArrowDown: 3, ArrowUp: -3 }[event.key]
    if (
      step === undefined ||
      (event.key.startsWith('Arrow') && (event.key === 'ArrowLeft' || event.key === 'ArrowRight') && texts[i] !== '')
    )
      return
    event.preventDefault()
    const next = i + step
    if (next >= 0 && next < 9) cells[next].focus()
    else if (event.key === 'Enter') void read()
  }
</script>

<div class="mx-auto grid max-w-4xl grid-cols-1 gap-8 p-4 md:grid-cols-2">
  <section aria-label="Nine readings">
    <h2 class="font-semibold">Nine readings</h2>
    <p class="text-quiet">Row by row as the camera sees the screen. Leave a field empty where there is no screen.</p>
    <div class="mt-2 flex gap-1.5" role="group" aria-label="Unit">
      {#each UNITS as [which, word] (which)}<button
          type="button"
          class="btn btn-sm"
          class:btn-active={unit === which}
          aria-pressed={unit === which}
          onclick={() => (unit = which)}>{word}</button
        >{/each}
    </div>
    <div class="mt-2 grid grid-cols-3 gap-1.5">
      {#each NAMES as name, i (name)}
        <input
          class="input input-sm h-14 text-center text-reading"
          inputmode="decimal"
          enterkeyhint="next"
          aria-label={name}
          placeholder={name}
          bind:value={texts[i]}
          bind:this={cells[i]}
          onkeydown={(event) => key(event, i)}
        />
      {/each}
    </div>
    <button type="button" class="btn btn-sm btn-primary mt-3 max-sm:h-12 max-sm:w-full" onclick={read}>Read</button>
    {#if error}<p role="alert" class="mt-2 text-primary">{error}</p>{/if}
    {#if found}
      <div class="mt-3 flex items-start gap-3" role="status">
        <span class="w-14 shrink-0"><State state={found.state} /></span>
        <p class="text-reading">{found.says}.</p>
      </div>
      {#if found.mean_lux !== null}<p class="mt-1 text-quiet">
          Mean {found.mean_lux.toFixed(0)} lx on the screen; the plan wants {session.evaluation?.check.screen?.lux_mean.toFixed(0) ?? '–'} lx.
        </p>{/if}
      {#if found.cause}<p class="mt-2">
          <span class="font-semibold">{found.cause.says}</span>{#if found.cause.cure}<span class="block text-primary"
              >{found.cause.cure}</span
            >{/if}<span class="label-text block">By nine places only, certainty {found.cause.certainty.toFixed(2)}.</span>
        </p>{/if}
    {/if}
  </section>
  <section aria-label="Zebra method">
    <h2 class="font-semibold">Zebra method</h2>
    <p class="text-quiet">
      Zebra at any level. Open the iris from closed: note the f-number at the first stripe on the screen, then when all of it is striped.
    </p>
    <div class="mt-2 grid grid-cols-2 gap-3">
      <label class="label-text"
        >First stripe, f/<input class="input input-sm mt-1 h-12 w-full text-reading" inputmode="decimal" bind:value={first} /></label
      >
      <label class="label-text"
        >All of it, f/<input class="input input-sm mt-1 h-12 w-full text-reading" inputmode="decimal" bind:value={full} /></label
      >
    </div>
    <button type="button" class="btn btn-sm btn-primary mt-3 max-sm:h-12 max-sm:w-full" onclick={stripes}>How even is it?</button>
    {#if zebraError}<p role="alert" class="mt-2 text-primary">{zebraError}</p>{/if}
    {#if zebra}<div class="mt-3 flex items-start gap-3" role="status">
        <span class="w-14 shrink-0"><State state={zebra.state} /></span>
        <p class="text-reading">{zebra.says}.</p>
      </div>{/if}
    <h2 class="mt-6 font-semibold">A phone's photo</h2>
    <p class="text-quiet">
      Better than nothing: measure it under Frames and clips. Its exposure and curve are its own, so levels say nothing; evenness is right
      to about a third of a stop, because phones brighten corners and shadows.
    </p>
  </section>
</div>
