<script lang="ts">
  /** Who is filmed, when they may be, and who comes along with a minor. */
  import Choice from '../parts/Choice.svelte'
  import NumberField from '../parts/NumberField.svelte'
  import Switch from '../parts/Switch.svelte'
  import TextField from '../parts/TextField.svelte'
  import TimeField from './TimeField.svelte'
  import { hexOf, reflectanceOf } from '../lib/colour'
  import { freshId, type OpenProduction } from '../lib/production.svelte'
  import type { Production } from '../lib/productionApi'
  let { open, document }: { open: OpenProduction; document: Production } = $props()

  const set = (i: number, field: string) => (value: unknown) => open.change([{ path: `people[${i}].${field}`, value }])
  const HAIR: [string, string][] = [
    ['', 'as in the set-up'],
    ['smooth', 'smooth'],
    ['curly', 'curly'],
    ['fine', 'fine, flying'],
    ['none', 'none'],
  ]
  const BUILDS: [string, string][] = [
    ['', 'as in the set-up'],
    ['man', 'man'],
    ['woman', 'woman'],
    ['child', 'child'],
  ]
  const add = () => open.change([{ path: 'people', value: [...document.people, { id: freshId('p', document.people), name: 'Somebody' }] }])
  /** Their shots stay, without anybody. */
  const remove = (id: string) =>
    open.change([
      { path: 'shots', value: document.shots.map((shot) => (shot.person === id ? { ...shot, person: null } : shot)) },
      { path: 'people', value: document.people.filter((one) => one.id !== id) },
    ])
</script>

<ul class="grid gap-6 md:grid-cols-2">
  {#each document.people as person, i (person.id)}
    <li class="flex flex-col gap-1 border-t border-line pt-2">
      <TextField label="Name" wide value={person.name} onchange={set(i, 'name')} />
      <TextField label="Does" wide blank value={person.role} onchange={set(i, 'role')} />
      <TimeField label="There from" value={person.from ?? ''} onchange={(time) => set(i, 'from')(time || null)} />
      <TimeField label="Until" value={person.to ?? ''} onchange={(time) => set(i, 'to')(time || null)} />
      <details>
        <summary class="label-text cursor-pointer">Looks, for every shot with {person.name || person.id}</summary>
        <div class="mt-1 flex flex-col gap-1">
          <Choice
            label="Height"
            value={person.height === null ? '' : 'own'}
            options={[
              ['', 'as in the set-up'],
              ['own', 'their own'],
            ]}
            onchange={(to) => set(i, 'height')(to ? 1.72 : null)}
          />
          {#if person.height !== null}<NumberField
              label="Tall"
              unit="m"
              step={0.01}
              field="subject.height"
              value={person.height}
              onchange={set(i, 'height')}
            />{/if}
          <Choice label="Build" value={person.body ?? ''} options={BUILDS} onchange={(to) => set(i, 'body')(to || null)} />
          <Choice label="Hair" value={person.hair_kind ?? ''} options={HAIR} onchange={(to) => set(i, 'hair_kind')(to || null)} />
          {#each [['hair', 'Colour of the hair', [0.05, 0.035, 0.025]], ['skin', 'Skin', [0.45, 0.3, 0.22]]] as const as [field, word, usual] (field)}
            <div class="flex items-center justify-between gap-2">
              <span class="label-text">{word}</span>
              <span class="flex items-center gap-1.5">
                {#if person[field]}
                  <input
                    type="color"
                    class="h-7 w-10 cursor-pointer border border-line bg-transparent"
                    aria-label="{word} of {person.name || person.id}"
                    value={hexOf(person[field])}
                    onchange={(event) => set(i, field)(reflectanceOf(event.currentTarget.value))}
                  />
                  <button type="button" class="btn btn-sm" onclick={() => set(i, field)(null)}>As in the set-up</button>
                {:else}<button type="button" class="btn btn-sm" onclick={() => set(i, field)([...usual])}>Their own</button>{/if}
              </span>
            </div>
          {/each}
        </div>
      </details>
      <Switch label="A minor" value={person.minor} onchange={set(i, 'minor')} />
      {#if person.minor}
        <TextField label="Comes along" wide blank value={person.guardian} onchange={set(i, 'guardian')} />
        <p class="label-text">Working times, breaks and permits: local law decides. Type in what was agreed.</p>
      {/if}
      <button type="button" class="btn btn-sm self-start" onclick={() => remove(person.id)}>Remove {person.name || person.id}</button>
    </li>
  {/each}
</ul>
<button type="button" class="btn btn-sm mt-3" onclick={add}>Add a person</button>
