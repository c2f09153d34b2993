<script lang="ts">
  /** The shots: what each shows, who is in it, whether its set-up is ready. A row opens to be edited. */
  import Choice from '../parts/Choice.svelte'
  import NumberField from '../parts/NumberField.svelte'
  import State from '../parts/State.svelte'
  import Switch from '../parts/Switch.svelte'
  import TextField from '../parts/TextField.svelte'
  import { createSetup, listTitles } from '../lib/api'
  import { daysOf, freshId, nameOf, type OpenProduction } from '../lib/production.svelte'
  import type { Production } from '../lib/productionApi'
  import { prefs } from '../lib/prefs.svelte'
  import { showLength } from '../lib/units'
  import { STATE_OF, type SetupTitle } from '../lib/types'
  import { push } from 'svelte-spa-router'
  let { open, document }: { open: OpenProduction; document: Production } = $props()

  let setups = $state.raw<SetupTitle[]>([])
  let opened = $state('')
  void listTitles()
    .then((found) => (setups = found))
    .catch(() => null)
  const stateOf = (id: string) => open.state?.shots.find((one) => one.shot === id)
  const set = (i: number, field: string) => (value: unknown) => open.change([{ path: `shots[${i}].${field}`, value }])
  const none = (word: string): [string, string] => ['', word]
  const NEEDS = [
    ['feet', 'feet seen'],
    ['smoke', 'smoke or fog'],
    ['wind', 'moving air'],
    ['moving-camera', 'moving camera'],
    ['sound', 'sound'],
  ] as const
  type Need = (typeof NEEDS)[number][0]
  const toggled = (needs: Need[], need: Need) => (needs.includes(need) ? needs.filter((one) => one !== need) : [...needs, need])

  function add() {
    const id = freshId('s', document.shots)
    const shot = { id, title: 'New shot', setup: setups[0]?.id ?? null }
    open.change([{ path: 'shots', value: [...document.shots, shot] }])
    opened = id
  }
  async function newSetup(i: number) {
    const made = await createSetup(document.shots[i].title || 'New set-up')
    open.change([{ path: `shots[${i}].setup`, value: made.id }])
    await push(`/setup/${made.id}`)
  }
  const remove = (id: string) => open.change([{ path: 'shots', value: document.shots.filter((shot) => shot.id !== id) }])
</script>

<table class="table table-xs">
  <thead
    ><tr class="label-text text-left"
      ><th class="font-normal">Shot</th><th class="font-normal">Set-up</th><th class="font-normal max-sm:hidden">Who, in what</th><th
        class="text-right font-normal">Minutes</th
      ><th class="text-right font-normal max-sm:hidden">Edit</th></tr
    ></thead
  >
  <tbody>
    {#each document.shots as shot, i (shot.id)}
      {@const state = stateOf(shot.id)}
      <tr class="border-t border-line align-top">
        <td class="py-1.5">
          <button
            type="button"
            class="cursor-pointer text-left hover:text-primary"
            aria-expanded={opened === shot.id}
            onclick={() => (opened = opened === shot.id ? '' : shot.id)}>{shot.title || shot.id}</button
          >
          <span class="label-text block"
            >{[
              daysOf(document).length > 1 ? `day ${shot.day + 1}` : '',
              { must: '', should: 'should', 'if-time': 'if there is time' }[shot.priority],
              shot.dirty ? 'dirty' : '',
              state && state.filmed >= 1 ? 'filmed' : state && state.filmed > 0 ? `${Math.round(100 * state.filmed)} % filmed` : '',
              shot.variants.length ? `${shot.variants.length} variants` : '',
            ]
              .filter(Boolean)
              .join(', ')}</span
          >
        </td>
        <td class="py-1.5">
          {#if state?.missing}<span class="text-primary">The set-up is deleted; its last plan is kept.</span>
          {:else if state}
            <span class="flex items-baseline gap-2"
              ><State state={STATE_OF[state.worst]} word={false} />{#if shot.setup}<a class="hover:text-primary" href="#/setup/{shot.setup}"
                  >{state.setup_title}</a
                >{:else}{state.setup_title}{/if}</span
            >
          {/if}
        </td>
        <td class="py-1.5 max-sm:hidden"
          >{nameOf(document, shot.person)}<span class="label-text block"
            >{document.outfits.find((one) => one.id === shot.outfit)?.name ?? ''}</span
          ></td
        >
        <td class="py-1.5 text-right">{shot.minutes}</td>
        <td class="py-1.5 text-right max-sm:hidden">{state ? `${state.hours.toFixed(0)} h` : ''}</td>
      </tr>
      {#if opened === shot.id}
        <tr
          ><td colspan="5" class="pb-4">
            <div class="grid gap-x-8 gap-y-1 md:grid-cols-2">
              <TextField label="Title" wide value={shot.title} onchange={set(i, 'title')} />
              <Choice
                label="Set-up"
                wide
                value={String(shot.setup ?? '')}
                options={[none('a plan of its own'), ...setups.map((one): [string, string] => [String(one.id), one.title])]}
                onchange={(to) => set(i, 'setup')(to ? Number(to) : null)}
              />
              <Choice
                label="Person"
                wide
                value={shot.person ?? ''}
                options={[none('nobody'), ...document.people.map((one): [string, string] => [one.id, one.name || one.id])]}
                onchange={(to) => set(i, 'person')(to || null)}
              />
              <Choice
                label="Outfit"
                wide
                value={shot.outfit ?? ''}
                options={[none('as in the set-up'), ...document.outfits.map((one): [string, string] => [one.id, one.name || one.id])]}
                onchange={(to) => set(i, 'outfit')(to || null)}
              />
              <Choice
                label="Plate"
                wide
                value={shot.plate ?? ''}
                options={[none('as in the set-up'), ...document.plates.map((one): [string, string] => [one.id, one.name || one.id])]}
                onchange={(to) => set(i, 'plate')(to || null)}
              />
              <NumberField label="Minutes" digits={0} step={5} min={0} max={600} value={shot.minutes} onchange={set(i, 'minutes')} />
              <Choice
                label="It is"
                wide
                value={shot.priority}
                options={[
                  ['must', 'a must'],
                  ['should', 'a should'],
                  ['if-time', 'for if there is time'],
                ]}
                onchange={set(i, 'priority')}
              />
              {#if daysOf(document).length > 1}<Choice
                  label="Day"
                  value={String(shot.day)}
                  options={daysOf(document).map((one, n): [string, string] => [String(n), one.date ?? `day ${n + 1}`])}
                  onchange={(to) =>
                    open.change([
                      { path: `shots[${i}].pinned`, value: null },
                      { path: `shots[${i}].day`, value: Number(to) },
                    ])}
                />{/if}
              <Switch label="Dirty: after all that are clean" value={shot.dirty} onchange={set(i, 'dirty')} />
              <Switch label="A take with the camera at rest" value={shot.still_take} onchange={set(i, 'still_take')} />
              <TextField
                label="Variants, with commas"
                wide
                blank
                value={shot.variants.join(', ')}
                onchange={(text) =>
                  set(
                    i,
                    'variants',
                  )(
                    text
                      .split(',')
                      .map((one) => one.trim())
                      .filter(Boolean),
                  )}
              />
              <div class="flex flex-wrap gap-1 md:col-span-2" role="group" aria-label="Needs">
                {#each NEEDS as [need, word] (need)}<button
                    type="button"
                    class="btn btn-sm"
                    aria-pressed={shot.needs.includes(need)}
                    onclick={() => set(i, 'needs')(toggled(shot.needs, need))}>{word}</button
                  >{/each}
                {#if state?.boom_m}<span class="self-center text-quiet"
                    >A boom stays out of the picture from {showLength(state.boom_m, prefs.length)} up.</span
                  >{/if}
              </div>
              <label class="md:col-span-2"
                ><span class="label-text block">Script, version {shot.script_version}</span><textarea
                  class="textarea textarea-sm w-full"
                  rows="2"
                  maxlength="20000"
                  value={shot.script}
                  onchange={(event) =>
                    open.change([
                      { path: `shots[${i}].script`, value: event.currentTarget.value },
                      { path: `shots[${i}].script_version`, value: shot.script ? shot.script_version + 1 : 1 },
                    ])}
                ></textarea></label
              >
            </div>
            <div class="mt-2 flex gap-1.5">
              <button type="button" class="btn btn-sm" onclick={() => newSetup(i)}>A set-up of its own</button>
              <button type="button" class="btn btn-sm" onclick={() => remove(shot.id)}>Remove this shot</button>
            </div>
          </td></tr
        >
      {/if}
    {/each}
  </tbody>
</table>
<button type="button" class="btn btn-sm mt-3" onclick={add}>Add a shot</button>
