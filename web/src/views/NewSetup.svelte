<script lang="ts">
  /** The first two minutes: the room and its things in the words of the job, and a lit set from them. */
  import { on } from 'svelte/events'
  import { push } from 'svelte-spa-router'
  import Answer from '../start/Answer.svelte'
  import AskNumber from '../parts/AskNumber.svelte'
  import Chips from '../parts/Chips.svelte'
  import LampsAsked from '../start/LampsAsked.svelte'
  import Preferences from '../parts/Preferences.svelte'
  import RoomAsked from '../start/RoomAsked.svelte'
  import * as api from '../lib/api'
  import { addToKit, getKit, type StoredKit } from '../lib/kitApi'
  import { FRAMINGS } from '../lib/framings'
  import { opened } from '../lib/resource.svelte'
  import { firstSet, nothingSaid, possibleWith, type FirstSet, type Possible, type Said } from '../lib/startApi'

  const RESTS = { possible: 150, first: 500 }
  let said = $state.raw<Said>(nothingSaid())
  let kit = $state.raw<StoredKit | null>(null)
  let keep = $state(true)
  let error = $state('')
  let making = $state(false)
  const first = opened<FirstSet>()
  const possible = opened<Possible>()
  const plan = $derived((first.busy ? null : first.value?.plan) ?? possible.value?.plan ?? null)
  const anything = $derived(JSON.stringify({ ...said, title: '' }) !== JSON.stringify(nothingSaid()))

  void getKit()
    .then((stored) => (kit = stored))
    .catch(() => null)

  function tell(fields: Partial<Said>) {
    said = { ...said, ...fields }
    const now = said
    void possible.ask((signal) => possibleWith(now, signal), RESTS.possible)
    void first.ask((signal) => firstSet(now, signal), RESTS.first)
  }
  const cloth = (fields: Partial<Said['cloth']>) => tell({ cloth: { ...said.cloth, ...fields } })
  function lenses(text: string) {
    const found = (text.match(/\d+(?:[.,]\d+)?/g) ?? []).map((one) => Number(one.replace(',', '.')))
    tell({ camera: { ...said.camera, lenses: found.filter((mm) => mm >= 1 && mm <= 600).slice(0, 8) } })
  }

  async function make(lit: boolean) {
    making = true
    try {
      const now = lit ? await firstSet(said, new AbortController().signal) : null
      const made = await api.createSetup(said.title.trim() || now?.plan.title || 'New set-up', now ? { ...now.plan } : undefined)
      if (now && keep && anything && kit) await addToKit(kit.revision, now.kit)
      await push(said.behind === 'picture' ? `/setup/${made.id}/plate` : `/setup/${made.id}`)
    } catch (err) {
      error = (err as Error).message
      making = false
    }
  }

  /** Enter goes on to the next field: a number that is typed is no order to make the set-up; in the title it is. */
  function onward(event: KeyboardEvent) {
    const field = event.target
    if (event.key !== 'Enter' || !(field instanceof HTMLInputElement) || !field.form) return
    const fields = [...field.form.querySelectorAll<HTMLInputElement>('input:not([type=checkbox])')]
    const next = fields[fields.indexOf(field) + 1]
    if (field.type === 'checkbox' || !next) return
    event.preventDefault()
    next.focus()
  }

  const CLOTHS: [string, string][] = [
    ['cloth', 'cloth'],
    ['paper-roll', 'paper roll'],
    ['pop-up', 'pop-up'],
    ['frame', 'frame'],
    ['painted-wall', 'painted wall'],
    ['foam-cloth', 'foam-backed'],
    ['vinyl', 'vinyl'],
  ]
  const HUES: ['green' | 'blue', string][] = [
    ['green', 'green'],
    ['blue', 'blue'],
  ]
  const CAMERAS: [string, string][] = [
    ['phone', 'phone'],
    ['small', 'small sensor'],
    ['large', 'large sensor'],
  ]
  const MOVES: [string, string][] = [
    ['still', 'still'],
    ['talks', 'talks, gestures'],
    ['moves', 'moves about'],
    ['dances', 'dances, fights'],
  ]
  const BEHIND: [string, string][] = [
    ['picture', 'a picture I have'],
    ['dark', 'dark'],
    ['medium', 'medium'],
    ['bright', 'bright'],
    ['unknown', 'not known yet'],
  ]
</script>

<svelte:head><title>New set-up · Ausblick</title></svelte:head>
<header class="flex h-11 items-center gap-3 border-b border-line px-4">
  <a href="#/" class="font-semibold hover:text-primary">Ausblick</a>
  <span class="text-quiet" aria-hidden="true">/</span>
  <h1 class="flex-1 font-semibold">New set-up</h1>
  <span class="max-sm:hidden"><Preferences /></span>
</header>
<main class="grid gap-6 px-4 py-3 lg:h-[calc(100dvh-2.75rem)] lg:grid-cols-[35rem_minmax(0,1fr)]">
  <form
    class="flex min-h-0 flex-col gap-3 overflow-y-auto pr-1"
    aria-label="What there is"
    onsubmit={(event) => (event.preventDefault(), void make(true))}
    {@attach (form) => on(form, 'keydown', onward)}
  >
    <fieldset>
      <legend class="mb-1 font-semibold">The room</legend>
      <RoomAsked room={said.room} onchange={(room) => tell({ room })} />
    </fieldset>
    <fieldset class="border-t border-line pt-2">
      <legend class="sr-only">The screen</legend>
      <p class="mb-1 font-semibold" aria-hidden="true">The screen</p>
      <div class="flex flex-col gap-1">
        <Chips label="It is" value={said.cloth.kind} options={CLOTHS} onchange={(kind) => cloth({ kind })} />
        <div class="flex flex-wrap items-end gap-x-4 gap-y-1">
          <Chips label="Colour" value={said.cloth.hue} options={HUES} onchange={(hue) => cloth({ hue })} />
          <AskNumber label="Width" unit="m" low={0.3} high={30} value={said.cloth.width} onchange={(width) => cloth({ width })} />
          <AskNumber
            label="Height or length"
            unit="m"
            low={0.3}
            high={30}
            value={said.cloth.height}
            onchange={(height) => cloth({ height })}
          />
        </div>
      </div>
    </fieldset>
    <fieldset class="border-t border-line pt-2">
      <legend class="sr-only">Lamps</legend>
      <p class="mb-1 font-semibold" aria-hidden="true">Lamps</p>
      <LampsAsked lamps={said.lamps} kit={kit?.kit ?? null} onchange={(lamps) => tell({ lamps })} />
    </fieldset>
    <fieldset class="border-t border-line pt-2">
      <legend class="sr-only">Camera and shot</legend>
      <p class="mb-1 font-semibold" aria-hidden="true">Camera and shot</p>
      <div class="flex flex-col gap-1">
        <div class="flex flex-wrap items-end gap-x-4 gap-y-1">
          <Chips
            label="Camera"
            value={said.camera.kind}
            options={CAMERAS}
            onchange={(kind) => tell({ camera: { ...said.camera, kind } })}
          />
          <label class="flex items-center gap-2"
            ><span class="label-text">Lenses, mm</span><input
              class="input input-sm w-28"
              placeholder="24, 35, 50"
              autocomplete="off"
              onchange={(event) => lenses(event.currentTarget.value)}
            /></label
          >
        </div>
        <Chips label="Seen" value={said.framing} options={FRAMINGS} onchange={(framing) => tell({ framing })} />
        <Chips label="The person" value={said.movement} options={MOVES} onchange={(movement) => tell({ movement })} />
        <Chips label="Behind it" value={said.behind} options={BEHIND} onchange={(behind) => tell({ behind })} />
      </div>
    </fieldset>
    <div class="sticky bottom-0 z-10 mt-auto flex flex-wrap items-center gap-3 border-t border-line bg-base-100 py-2.5">
      <input
        class="input input-sm w-44"
        aria-label="Title"
        placeholder="Title"
        maxlength="200"
        value={said.title}
        oninput={(event) => (said = { ...said, title: event.currentTarget.value })}
      />
      <button type="submit" class="btn btn-sm btn-primary" disabled={making || !anything}>Make this set-up</button>
      <button type="button" class="btn btn-sm" disabled={making} onclick={() => void make(false)}>Start without answers</button>
      {#if anything}
        <label class="label-text flex items-center gap-1.5"
          ><input type="checkbox" class="checkbox checkbox-xs" bind:checked={keep} /> add these things to the kit room</label
        >
      {/if}
      {#if error || first.error || possible.error}
        <p role="alert" class="w-full text-primary">{error || first.error || possible.error}</p>
      {/if}
    </div>
  </form>
  <Answer {plan} first={first.value} possible={possible.value} busy={first.busy} />
</main>
