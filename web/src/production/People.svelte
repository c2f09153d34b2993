<script lang="ts">
  /** Who is filmed, when they may be, and who comes along with a minor. */
  import Switch from '../parts/Switch.svelte'
  import TextField from '../parts/TextField.svelte'
  import TimeField from './TimeField.svelte'
  import { freshId, type OpenProduction } from '../lib/production.svelte'
  import type { Production } from '../lib/productionApi'
  let { open, document }: { open: OpenProduction; document: Production } = $props()

  const set = (i: number, field: string) => (value: unknown) => open.change([{ path: `people[${i}].${field}`, value }])
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
      <TextField label="Does" wide value={person.role} onchange={set(i, 'role')} />
      <TimeField label="There from" value={person.from ?? ''} onchange={(time) => set(i, 'from')(time || null)} />
      <TimeField label="Until" value={person.to ?? ''} onchange={(time) => set(i, 'to')(time || null)} />
      <Switch label="A minor" value={person.minor} onchange={set(i, 'minor')} />
      {#if person.minor}
        <TextField label="Comes along" wide value={person.guardian} onchange={set(i, 'guardian')} />
        <p class="label-text">Working times, breaks and permits: local law decides. Type in what was agreed.</p>
      {/if}
      <button type="button" class="btn btn-sm self-start" onclick={() => remove(person.id)}>Remove {person.name || person.id}</button>
    </li>
  {/each}
</ul>
<button type="button" class="btn btn-sm mt-3" onclick={add}>Add a person</button>
