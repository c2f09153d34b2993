<script lang="ts">
  /** Takes on the set, for one thumb in the dark: two taps log one; it goes on while the server is away. */
  import { push, replace, router } from 'svelte-spa-router'
  import LoggedTakes from '../production/LoggedTakes.svelte'
  import TakeForm from '../production/TakeForm.svelte'
  import TakePicture from '../production/TakePicture.svelte'
  import { listen } from '../lib/events'
  import { offline } from '../lib/offline.svelte'
  import { prefs } from '../lib/prefs.svelte'
  import * as api from '../lib/productionApi'
  import { say } from '../lib/say'
  import { takeQueue } from '../lib/takeQueue.svelte'
  let { params }: { params: { id: string } } = $props()

  const id = $derived(Number(params.id))
  let document = $state.raw<api.Production | null>(null)
  let takes = $state.raw<api.Takes | null>(null)
  let order = $state.raw<string[]>([])
  let error = $state('')
  let wrap = $state(false)

  async function load() {
    offline.keptAt = ''
    try {
      document = (await api.getProduction(id)).production
      takes = await api.listTakes(id, wrap)
      error = ''
      order = (await api.planDays(document)).order
    } catch (err) {
      error = (err as Error).message
    }
  }
  async function compare() {
    const measured = await api.listTakes(id, wrap).catch(() => null)
    if (measured && measured.takes.length >= (takes?.takes.length ?? 0)) takes = measured
  }
  $effect(() => {
    void [id, wrap]
    void load()
  })
  // What was logged stands there at once; its pictures are compared then.
  $effect(() => takeQueue.listen((heard, production) => production === id && ((takes = heard), void compare())))
  $effect(() => listen((changed) => ['productions', 'frames', 'setups'].includes(changed.what) && void load()))

  /** The shots in the order of the day; the address says which one is open. */
  const shots = $derived.by(() => {
    const all = document?.shots ?? []
    return order.length === all.length ? order.map((one) => all.find((shot) => shot.id === one)!).filter(Boolean) : all
  })
  const logOf = (shot: string) => takes?.shots.find((one) => one.progress.shot === shot)
  const asked = $derived(new URLSearchParams(router.querystring).get('shot'))
  const shot = $derived(shots.find((one) => one.id === asked) ?? shots.find((one) => (logOf(one.id)?.progress.share ?? 0) < 1) ?? shots[0])
  const at = $derived(shot ? shots.indexOf(shot) : -1)
  const log = $derived(shot ? logOf(shot.id) : undefined)
  const go = (to: api.Shot | undefined) => to && void replace(`${router.location}?shot=${encodeURIComponent(to.id)}`)

  const waiting = $derived(takeQueue.waiting.filter((one) => one.production === id))
  const mine = $derived(waiting.filter((one) => one.take.shot === shot?.id && one.take.kind === 'take').map((one) => one.take.number))
  const number = $derived(Math.max(log?.next_number ?? 1, ...mine.map((one) => one + 1)))
  const plate = $derived(log?.clean_plate ?? null)
  const left = $derived(shots.filter((one) => (logOf(one.id)?.progress.share ?? 0) < 1).length)
  let picture = $state.raw<{ id: number; name: string } | null>(null)
</script>

<svelte:head><title>Takes · {document?.title ?? ''} · Ausblick</title></svelte:head>
<header class="flex h-12 items-center gap-2 border-b border-line px-3">
  <button type="button" class="btn btn-sm" onclick={() => push(`/production/${id}`)}>Back</button>
  <h1 class="min-w-0 flex-1 truncate font-semibold">{document?.title ?? ''}</h1>
  <span class="label-text" role="status" class:!text-primary={waiting.length > 0}
    >{waiting.length ? `${waiting.length} waiting to be sent` : left ? `${left} shots open` : 'all shots done'}</span
  >
</header>
{#if offline.keptAt}<p role="status" class="border-b border-primary px-3 py-2 text-primary">
    The server is away. What stands here is of {offline.keptAt}; takes that are logged wait here.
  </p>{/if}
{#if error && !document}<p role="alert" class="px-3 py-2 text-primary">{error}</p>{/if}
{#if takeQueue.refused}<p role="alert" class="px-3 py-2 text-primary">
    {takeQueue.refused}
    {#if waiting[0]}<button type="button" class="btn btn-sm" onclick={() => takeQueue.drop(waiting[0].take.key)}>Drop this take</button
      >{/if}
  </p>{/if}
{#if document && !shots.length}<p class="px-3 py-4 text-quiet">
    There is no shot yet. <a class="text-primary underline" href="#/production/{id}">Add one</a>.
  </p>{/if}
{#if shot && document}
  <main class="mx-auto flex max-w-xl flex-col gap-3 px-3 py-3 pb-28">
    <div class="flex items-center gap-2">
      <button type="button" class="btn h-12 w-12" disabled={at <= 0} aria-label="Shot before" onclick={() => go(shots[at - 1])}>‹</button>
      <div class="min-w-0 flex-1 text-center">
        <h2 class="text-reading font-semibold">{shot.title || shot.id}</h2>
        <p class="label-text">
          {document.people.find((one) => one.id === shot.person)?.name ?? ''}{shot.script
            ? ` · script, version ${shot.script_version}`
            : ''}
        </p>
      </div>
      <button
        type="button"
        class="btn h-12 w-12"
        disabled={at < 0 || at >= shots.length - 1}
        aria-label="Next shot"
        onclick={() => go(shots[at + 1])}>›</button
      >
    </div>
    {#if shot.script}<p class="border-l-2 border-line pl-3 text-reading">{shot.script}</p>{/if}
    <p class="flex items-baseline justify-between gap-3" class:text-primary={plate !== null && plate.state !== 'holds'}>
      <span
        >{plate === null
          ? 'Clean plate: this shot has no set-up here to check it by'
          : plate.finding
            ? say(plate.finding.told, prefs)
            : 'The clean plate holds'}</span
      >
    </p>
    {#each log?.before_next ?? [] as finding (finding.id)}<p class="text-primary">{say(finding.told, prefs)}</p>{/each}
    <!-- Once the log is known, or cannot be: what comes later never moves a button from under a thumb. -->
    {#if takes || error}
      {#key shot.id}
        <TakeForm production={id} {shot} {number} {log} {picture} />
        <TakePicture setup={shot.setup ?? null} after={log?.progress.last_at ?? null} chosen={(found) => (picture = found)} />
      {/key}
    {/if}
    {#if at < shots.length - 1 && log && log.progress.share >= 1}
      <button type="button" class="btn btn-primary h-12" onclick={() => go(shots[at + 1])}
        >Next: {shots[at + 1].title || shots[at + 1].id}</button
      >
    {/if}
    <LoggedTakes production={id} {shot} takes={takes?.takes ?? []} changed={(heard) => (takes = heard)} />
    <button type="button" class="btn h-11" aria-pressed={wrap} onclick={() => (wrap = !wrap)}>Check before wrap</button>
    {#if wrap}
      <ul aria-label="Before wrap">
        {#each shots as one (one.id)}
          {@const own = logOf(one.id)}
          {#if own && (own.progress.share < 1 || (own.clean_plate && own.clean_plate.state !== 'holds'))}
            <li class="border-t border-line py-1.5 text-primary">
              {one.title}: {own.progress.share < 1
                ? `${own.progress.variants.filter((v) => v.good).length} of ${own.progress.variants.length} good`
                : ''}{own.clean_plate?.finding ? ` ${say(own.clean_plate.finding.told, prefs)}.` : ''}
            </li>
          {/if}
        {:else}<li class="text-quiet">Nothing is missing.</li>{/each}
      </ul>
    {/if}
  </main>
{/if}
