<script lang="ts">
  /** Everything that was deleted, to bring back. */
  import * as api from '../lib/api'
  let { changed }: { changed: () => Promise<unknown> } = $props()

  let found = $state.raw<Awaited<ReturnType<typeof api.trash>> | null>(null)
  const things = $derived([
    ...(found?.setups ?? []).map((one) => ({ key: `s${one.id}`, name: one.title, what: 'set-up', back: () => api.restoreSetup(one.id) })),
    ...(found?.frames ?? []).map((one) => ({ key: `f${one.id}`, name: one.name, what: 'frame', back: () => api.restoreFrame(one.id) })),
  ])
  let error = $state('')
  const told = (err: unknown) => void (error = (err as Error).message)
  const look = () => api.trash().then((all) => (found = all), told)
  async function bring(back: () => Promise<unknown>) {
    error = ''
    await back().catch(told)
    await Promise.all([changed(), look()])
  }
</script>

<details class="mt-8" ontoggle={(event) => event.currentTarget.open && void look()}>
  <summary class="label-text cursor-pointer hover:text-ink">Deleted things</summary>
  {#if error}<p role="alert" class="mt-1 text-primary">{error}</p>{/if}
  <ul class="mt-1">
    {#each things as one (one.key)}
      <li class="flex items-center justify-between gap-3 border-t border-line py-1.5">
        <span>{one.name} <span class="label-text">{one.what}</span></span>
        <button type="button" class="btn btn-sm" aria-label="Bring back {one.name}" onclick={() => bring(one.back)}>Bring back</button>
      </li>
    {:else}
      <li class="py-1.5 text-quiet">Nothing is in here. A deleted frame stays a month, a set-up for good.</li>
    {/each}
  </ul>
</details>
