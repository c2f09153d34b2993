<script lang="ts">
  /** What the shots share beside people and outfits: plates, sound, the schools they are judged by, the kit. */
  import Choice from '../parts/Choice.svelte'
  import NumberField from '../parts/NumberField.svelte'
  import Switch from '../parts/Switch.svelte'
  import TextField from '../parts/TextField.svelte'
  import { getSetup, listTitles } from '../lib/api'
  import { getKit } from '../lib/kitApi'
  import { freshId, type OpenProduction } from '../lib/production.svelte'
  import type { Production } from '../lib/productionApi'
  import { DISTANCE_SCHOOLS, LEVEL_SCHOOLS, SHUTTER_SCHOOLS } from '../lib/schools'
  import type { SetupTitle } from '../lib/types'
  let { open, document }: { open: OpenProduction; document: Production } = $props()

  let setups = $state.raw<SetupTitle[]>([])
  let wrong = $state('')
  void listTitles()
    .then((found) => (setups = found))
    .catch(() => null)
  const set = (path: string) => (value: unknown) => open.change([{ path, value }])
  const without = (group: 'plates' | 'sound', id: string) => (document[group] as { id: string }[]).filter((one) => one.id !== id)

  const addPlate = () =>
    open.change([
      {
        path: 'plates',
        value: [...document.plates, { id: freshId('b', document.plates), name: 'New plate', plate: { known: false } }],
      },
    ])
  /** Its facts are worked out on the set-up's own page, with the picture before one. */
  async function takeFrom(i: number, setup: string) {
    if (!setup) return
    try {
      const { plan } = await getSetup(Number(setup))
      open.change([
        { path: `plates[${i}].plate`, value: plan.plate },
        { path: `plates[${i}].name`, value: plan.title },
      ])
    } catch (err) {
      wrong = (err as Error).message
    }
  }
  /** Its shots go back to what their set-ups have behind. */
  const removePlate = (id: string) =>
    open.change([
      { path: 'shots', value: document.shots.map((shot) => (shot.plate === id ? { ...shot, plate: null } : shot)) },
      { path: 'plates', value: without('plates', id) },
    ])
  const addSound = () =>
    open.change([
      {
        path: 'sound',
        value: [
          ...document.sound,
          {
            id: freshId('m', document.sound),
            name: document.sound.length ? 'Boom' : 'Worn microphone',
            way: document.sound.length ? 'boom' : 'worn',
            track: document.sound.length + 1,
          },
        ],
      },
    ])
  const kit = $derived(document.kit)
  const COUNTED = [
    ['screens', 'screens'],
    ['lamps', 'lamps'],
    ['stands', 'stands'],
    ['lenses', 'lenses'],
    ['cameras', 'cameras'],
  ] as const
  const counted = $derived(
    kit ? COUNTED.map(([group, word]) => `${kit[group].reduce((sum, one) => sum + one.count, 0)} ${word}`).join(', ') : '',
  )
  async function ownKit() {
    try {
      set('kit')((await getKit()).kit)
    } catch (err) {
      wrong = (err as Error).message
    }
  }
</script>

{#if wrong}<p role="alert" class="text-primary">{wrong}</p>{/if}
<div class="grid gap-x-8 gap-y-6 md:grid-cols-2">
  <section aria-label="Plates">
    <h2 class="font-semibold">Plates</h2>
    <p class="text-quiet">A shot takes one of them, or keeps what its set-up has behind.</p>
    {#each document.plates as plate, i (plate.id)}
      <div class="mt-2 flex flex-col gap-1 border-t border-line pt-2">
        <TextField label="Plate" wide value={plate.name} onchange={set(`plates[${i}].name`)} />
        <Choice
          label="Facts from"
          wide
          value=""
          options={[
            ['', plate.plate.known ? 'as they are' : 'not known yet'],
            ...setups.map((one): [string, string] => [String(one.id), one.title]),
          ]}
          onchange={(to) => takeFrom(i, to)}
        />
        {#if plate.plate.known}
          <p class="label-text">
            Mean level {plate.plate.mean_level.toFixed(0)} %, light from {Math.abs(plate.plate.key_azimuth).toFixed(0)}° {plate.plate
              .key_azimuth < 0
              ? 'left'
              : 'right'}, {plate.plate.cct.toFixed(0)} K, {plate.plate.softness}
          </p>
        {/if}
        <Switch label="Moving" value={plate.moving} onchange={set(`plates[${i}].moving`)} />
        {#if plate.moving}<NumberField
            label="Frames a second"
            digits={2}
            step={1}
            min={1}
            max={1000}
            value={plate.fps ?? 25}
            onchange={set(`plates[${i}].fps`)}
          />{/if}
        <button type="button" class="btn btn-sm self-start" onclick={() => removePlate(plate.id)}>Remove {plate.name || plate.id}</button>
      </div>
    {/each}
    <button type="button" class="btn btn-sm mt-2" onclick={addPlate}>Add a plate</button>
  </section>
  <section aria-label="Sound">
    <h2 class="font-semibold">Sound</h2>
    <p class="text-quiet">Two that do not depend on each other: one worn, one on a boom above the picture.</p>
    {#each document.sound as device, i (device.id)}
      <div class="mt-2 flex flex-col gap-1 border-t border-line pt-2">
        <TextField label="Device" wide value={device.name} onchange={set(`sound[${i}].name`)} />
        <Choice
          label="It is"
          value={device.way}
          options={[
            ['worn', 'worn'],
            ['boom', 'on a boom'],
            ['other', 'elsewhere'],
          ]}
          onchange={set(`sound[${i}].way`)}
        />
        <NumberField label="Track" digits={0} step={1} min={1} max={64} value={device.track} onchange={set(`sound[${i}].track`)} />
        <button type="button" class="btn btn-sm self-start" onclick={() => set('sound')(without('sound', device.id))}
          >Remove {device.name || device.id}</button
        >
      </div>
    {/each}
    <button type="button" class="btn btn-sm mt-2" onclick={addSound}>Add a device</button>
  </section>
  <section aria-label="Schools" class="flex flex-col gap-1">
    <h2 class="font-semibold">Schools</h2>
    <Switch label="One way for all shots" value={document.schools !== null} onchange={(on) => set('schools')(on ? {} : null)} />
    {#if document.schools}
      <Choice label="Level" wide value={document.schools.level_school} options={LEVEL_SCHOOLS} onchange={set('schools.level_school')} />
      {#if document.schools.level_school === 'custom'}<NumberField
          label="Wanted level"
          unit="%"
          digits={0}
          step={1}
          field="targets.screen_level"
          value={document.schools.screen_level}
          onchange={set('schools.screen_level')}
        />{/if}
      <Choice
        label="Distance"
        wide
        value={document.schools.distance_school}
        options={DISTANCE_SCHOOLS}
        onchange={set('schools.distance_school')}
      />
      <Choice
        label="Shutter"
        wide
        value={document.schools.shutter_school}
        options={SHUTTER_SCHOOLS}
        onchange={set('schools.shutter_school')}
      />
      <p class="text-quiet">Here every shot is judged by these; a set-up's own page keeps its own.</p>
    {:else}<p class="text-quiet">Every shot is judged by the schools of its set-up.</p>{/if}
  </section>
  <section aria-label="Kit" class="flex flex-col gap-1">
    <h2 class="font-semibold">Kit</h2>
    {#if kit}
      <p>{counted}</p>
      <p class="text-quiet">Shots and the packing list are held against this copy.</p>
      <span class="flex gap-1.5">
        <button type="button" class="btn btn-sm" onclick={ownKit}>Copy the house's kit again</button>
        <button type="button" class="btn btn-sm" onclick={() => set('kit')(null)}>Use the house's kit</button>
      </span>
    {:else}
      <p class="text-quiet">The house's <a class="underline" href="#/kit">kit</a>, as it is now.</p>
      <button type="button" class="btn btn-sm self-start" onclick={ownKit}>Keep a copy for this production</button>
    {/if}
  </section>
</div>
