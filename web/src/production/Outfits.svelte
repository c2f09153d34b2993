<script lang="ts">
  /** Outfits side by side, each before green and before blue: how solid its worst piece keys. */
  import Choice from '../parts/Choice.svelte'
  import State from '../parts/State.svelte'
  import TextField from '../parts/TextField.svelte'
  import PhotoColours from '../parts/PhotoColours.svelte'
  import { hexOf, reflectanceOf } from '../lib/colour'
  import { COVERS, nextCovers } from '../lib/garments'
  import { freshId, nameOf, type OpenProduction } from '../lib/production.svelte'
  import type { Production } from '../lib/productionApi'
  import type { State as Word } from '../lib/types'
  let { open, document }: { open: OpenProduction; document: Production } = $props()

  const WORD: Record<string, Word> = { keys: 'holds', doubtful: 'tight', 'keyed away': 'fails' }
  /** Which piece a click in a photo gives its colour to. */
  let picking = $state('')
  const checked = (id: string) => open.state?.outfits.find((one) => one.outfit === id)
  const set = (path: string) => (value: unknown) => open.change([{ path, value }])
  const add = () =>
    open.change([
      {
        path: 'outfits',
        value: [
          ...document.outfits,
          {
            id: freshId('o', document.outfits),
            person: document.people[0]?.id ?? null,
            name: 'New outfit',
            garments: [{ name: 'shirt', reflectance: [0.4, 0.4, 0.4] }],
          },
        ],
      },
    ])
  const remove = (id: string) =>
    open.change([
      { path: 'shots', value: document.shots.map((shot) => (shot.outfit === id ? { ...shot, outfit: null } : shot)) },
      { path: 'outfits', value: document.outfits.filter((one) => one.id !== id) },
    ])
</script>

<div class="grid gap-6 sm:grid-cols-2 xl:grid-cols-3">
  {#each document.outfits as outfit, i (outfit.id)}
    {@const found = checked(outfit.id)}
    <section aria-label={outfit.name || outfit.id} class="flex flex-col gap-2 border-t border-line pt-2">
      <TextField label="Outfit" value={outfit.name} onchange={set(`outfits[${i}].name`)} />
      <Choice
        label="Worn by"
        wide
        value={outfit.person ?? ''}
        options={[['', 'anybody'], ...document.people.map((one): [string, string] => [one.id, nameOf(document, one.id)])]}
        onchange={(to) => set(`outfits[${i}].person`)(to || null)}
      />
      <div class="flex h-24 overflow-hidden border border-line" aria-hidden="true">
        {#each outfit.garments as one, k (k)}<span class="flex-1" style:background={hexOf(one.reflectance)}></span>{/each}
      </div>
      <div class="grid grid-cols-2 gap-2">
        {#each found?.verdicts ?? [] as verdict (verdict.screen)}
          <div class="border-t-2 pt-1" style:border-color={verdict.screen === 'green' ? 'var(--screen-green, #2f8f4e)' : '#3b62c9'}>
            <p>
              before {verdict.screen}{#if found!.planned.includes(verdict.screen)}<span class="label-text">, as planned</span>{/if}
            </p>
            <p class="flex items-baseline gap-1.5 text-reading">
              <State state={WORD[verdict.verdict]} word={false} />{verdict.verdict}
            </p>
            {#each verdict.pieces as piece (piece.garment)}
              <p class="flex justify-between text-quiet"><span>{piece.garment}</span><span>{(100 * piece.solid).toFixed(0)} %</span></p>
            {/each}
          </div>
        {/each}
      </div>
      <details>
        <summary class="label-text cursor-pointer">Pieces</summary>
        {#each outfit.garments as garment, k (k)}
          <div class="grid grid-cols-[auto_minmax(0,1fr)_auto] items-center gap-x-1.5 gap-y-1 border-t border-line py-1">
            <input
              type="color"
              class="h-7 w-10 cursor-pointer border border-line bg-transparent"
              aria-label="Colour of {garment.name}"
              value={hexOf(garment.reflectance)}
              onchange={(event) => set(`outfits[${i}].garments[${k}].reflectance`)(reflectanceOf(event.currentTarget.value))}
            />
            <input
              class="input input-sm !w-full"
              aria-label="Name of {garment.name}"
              maxlength="200"
              value={garment.name}
              onchange={(event) => set(`outfits[${i}].garments[${k}].name`)(event.currentTarget.value)}
            />
            <button
              type="button"
              class="btn btn-sm"
              aria-label="Remove {garment.name}"
              onclick={() => set(`outfits[${i}].garments`)(outfit.garments.filter((_, n) => n !== k))}>×</button
            >
            <span class="col-span-2 col-start-2 flex flex-wrap items-center gap-1.5">
              <select
                class="select select-sm !w-32"
                aria-label="Where {garment.name} is worn"
                value={garment.covers}
                onchange={(event) => set(`outfits[${i}].garments[${k}].covers`)(event.currentTarget.value)}
              >
                {#each COVERS as [value, word] (value)}<option {value}>{word}</option>{/each}
              </select>
              <button
                type="button"
                class="btn btn-sm"
                aria-label="Pick the colour of {garment.name} from the photo"
                aria-pressed={picking === `${outfit.id} ${k}`}
                onclick={() => (picking = `${outfit.id} ${k}`)}>Pick</button
              >
            </span>
          </div>
        {/each}
        <div class="mt-1 flex flex-wrap items-start gap-1.5">
          <button
            type="button"
            class="btn btn-sm"
            onclick={() =>
              set(`outfits[${i}].garments`)([
                ...outfit.garments,
                { name: 'piece', reflectance: [0.4, 0.4, 0.4], covers: nextCovers(outfit.garments) },
              ])}>Add a piece</button
          >
          <PhotoColours
            opened={() => (picking ||= `${outfit.id} 0`)}
            picked={(rgb) =>
              picking.startsWith(`${outfit.id} `) && set(`outfits[${i}].garments[${picking.split(' ')[1]}].reflectance`)(rgb)}
          />
          <button type="button" class="btn btn-sm" onclick={() => remove(outfit.id)}>Remove {outfit.name || outfit.id}</button>
        </div>
      </details>
    </section>
  {/each}
</div>
<p class="label-text mt-4">
  Per cent: how solid the piece stays in the matte before that screen. Before the screen of its shots where one is planned, else before
  usual cloth.
</p>
<button type="button" class="btn btn-sm mt-2" onclick={add}>Add an outfit</button>
