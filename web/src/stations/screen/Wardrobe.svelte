<script lang="ts">
  /** What is worn and held: name and colour, typed, chosen, or picked from a photo as the mean of an area. */
  import PhotoColours from '../../parts/PhotoColours.svelte'
  import { hexOf, reflectanceOf } from '../../lib/colour'
  import { COVERS, nextCovers } from '../../lib/garments'
  import { session } from '../../lib/session.svelte'
  import type { Person } from '../../lib/people'
  let { person }: { person: Person } = $props()

  const s = $derived(person.subject)
  const at = $derived(person.path)
  /** A companion's things say whose they are. */
  const whose = $derived(person.index === null ? '' : `, ${person.name}`)
  /** What is most often forgotten, and how much light it sends back; of glasses the frame. */
  const USUAL = [
    ['glasses', 'glass', 'glasses', 0.03],
    ['jewellery', 'metal', 'worn', 0.3],
    ['tattoo', 'matt', 'worn', 0.3],
    ['spray', 'smoke', 'sphere', 0.3],
  ] as const
  const KINDS = ['glass', 'metal', 'matt', 'liquid', 'smoke'] as const
  const SHAPES = [
    ['sphere', 'ball'],
    ['cylinder', 'jar'],
    ['pane', 'pane'],
    ['scoop', 'scoop'],
    ['bat', 'bat'],
    ['glasses', 'on the nose'],
    ['worn', 'on the skin'],
  ] as const
  const KEYING = [
    ['kept', 'keep it'],
    ['away', 'take it away'],
    ['held-out', 'hold it out'],
  ] as const
  let photo = $state('')
  let picking = $state('')

  const things = $derived([
    { label: 'Skin', path: `${at}.skin`, rgb: s.skin, keying: 'kept' },
    { label: 'Hair', path: `${at}.hair`, rgb: s.hair, keying: 'kept' },
    ...s.wardrobe.map((g, i) => ({ label: g.name, path: `${at}.wardrobe[${i}].reflectance`, rgb: g.reflectance, keying: g.keying })),
    ...s.props.map((p, i) => ({ label: p.name, path: `${at}.props[${i}].reflectance`, rgb: p.reflectance, keying: p.keying })),
  ])
  const set = (path: string, value: unknown) => session.change([{ path, value }])
</script>

<h2 class="mt-3 font-semibold">Worn and held{whose}</h2>
<ul>
  {#each things as thing, i (thing.path)}
    <li class="grid grid-cols-[auto_minmax(0,1fr)_auto] items-center gap-x-3 gap-y-1 border-t border-line py-1">
      <input
        type="color"
        class="h-6 w-8 cursor-pointer border border-line bg-transparent"
        aria-label="Colour of {thing.label}{whose}"
        value={hexOf(thing.rgb)}
        onchange={(event) => set(thing.path, reflectanceOf(event.currentTarget.value))}
      />
      {#if i < 2}
        <span>{thing.label}</span>
      {:else}
        <input
          class="input input-sm !w-full max-w-64"
          aria-label="Name of {thing.label}{whose}"
          value={thing.label}
          maxlength="200"
          onchange={(event) => set(thing.path.replace('.reflectance', '.name'), event.currentTarget.value.trim() || 'thing')}
        />
      {/if}
      <span class="flex justify-end gap-2">
        {#if photo}<button
            type="button"
            class="btn btn-sm"
            class:btn-active={picking === thing.path}
            aria-pressed={picking === thing.path}
            aria-label="Pick the colour of {thing.label} from the photo"
            onclick={() => (picking = thing.path)}>Pick</button
          >{/if}
        {#if i >= 2}
          <button
            type="button"
            class="btn btn-sm"
            aria-label="Remove {thing.label}{whose}"
            onclick={() =>
              i - 2 < s.wardrobe.length
                ? set(
                    `${at}.wardrobe`,
                    s.wardrobe.filter((_, k) => k !== i - 2),
                  )
                : set(
                    `${at}.props`,
                    s.props.filter((_, k) => k !== i - 2 - s.wardrobe.length),
                  )}>Remove</button
          >
        {/if}
      </span>
      {#if i >= 2}
        <span class="col-span-2 col-start-2 flex flex-wrap items-center gap-2">
          {#if thing.path.includes('wardrobe')}
            <select
              class="select select-sm !w-32"
              aria-label="Where {thing.label} is worn{whose}"
              value={s.wardrobe[i - 2].covers}
              onchange={(event) => set(thing.path.replace('.reflectance', '.covers'), event.currentTarget.value)}
            >
              {#each COVERS as [value, word] (value)}<option {value}>{word}</option>{/each}
            </select>
            <label class="label-text flex items-center gap-1"
              ><input
                type="checkbox"
                class="checkbox checkbox-xs"
                aria-label="{thing.label} shines{whose}"
                checked={s.wardrobe[i - 2].gloss > 0.15}
                onchange={(event) => set(thing.path.replace('.reflectance', '.gloss'), event.currentTarget.checked ? 0.5 : 0)}
              /> shines</label
            >
          {/if}
          {#if thing.path.includes('props')}
            {@const prop = s.props[i - 2 - s.wardrobe.length]}
            <select
              class="select select-sm !w-24"
              aria-label="Kind of {thing.label}{whose}"
              value={prop.kind}
              onchange={(event) => set(thing.path.replace('.reflectance', '.kind'), event.currentTarget.value)}
            >
              {#each KINDS as kind (kind)}<option>{kind}</option>{/each}
            </select>
            <select
              class="select select-sm !w-32"
              aria-label="Shape of {thing.label}{whose}"
              value={prop.shape ?? ''}
              onchange={(event) => set(thing.path.replace('.reflectance', '.shape'), event.currentTarget.value || null)}
            >
              <option value="">usual shape</option>
              {#each SHAPES as [value, word] (value)}<option {value}>{word}</option>{/each}
            </select>
          {/if}
          <select
            class="select select-sm !w-32"
            aria-label="The key is to … {thing.label}{whose}"
            title="What the key is to do with it"
            value={thing.keying}
            onchange={(event) => set(thing.path.replace('.reflectance', '.keying'), event.currentTarget.value)}
          >
            {#each KEYING as [value, word] (value)}<option {value}>{word}</option>{/each}
          </select>
        </span>
      {/if}
    </li>
  {/each}
</ul>
<div class="mt-1 flex flex-wrap gap-2">
  {#each USUAL as [name, kind, shape, ink] (name)}
    {#if !s.props.some((p) => p.name === name)}<button
        type="button"
        class="btn btn-sm"
        aria-label="Add {name}{whose}"
        onclick={() => set(`${at}.props`, [...s.props, { name, kind, shape, reflectance: [ink, ink, ink] }])}>+ {name}</button
      >{/if}
  {/each}
  <button
    type="button"
    class="btn btn-sm"
    aria-label="Add a garment{whose}"
    onclick={() =>
      set(`${at}.wardrobe`, [
        ...s.wardrobe,
        { name: `garment ${s.wardrobe.length + 1}`, reflectance: [0.2, 0.2, 0.2], gloss: 0, covers: nextCovers(s.wardrobe) },
      ])}>Add a garment</button
  >
  <button
    type="button"
    class="btn btn-sm"
    aria-label="Add a prop{whose}"
    onclick={() => set(`${at}.props`, [...s.props, { name: `prop ${s.props.length + 1}`, kind: 'matt', reflectance: [0.3, 0.3, 0.3] }])}
    >Add a prop</button
  >
  <PhotoColours opened={(name) => ((photo = name), (picking = things[0].path))} picked={(rgb) => picking && set(picking, rgb)} />
</div>
