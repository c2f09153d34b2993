<script lang="ts">
  /** What to look at before the take and after it: ticked by measurement where that can be measured. */
  import Words from '../../parts/Words.svelte'
  import { clearLists, getLists, tick } from '../../lib/checkApi'
  import { listenFor } from '../../lib/events'
  import { session } from '../../lib/session.svelte'
  import type { ListItem } from '../../lib/types'

  let items = $state.raw<ListItem[]>([])
  let error = $state('')
  const take = (work: Promise<ListItem[]>) =>
    work.then(
      (found) => ((items = found), (error = '')),
      (err: Error) => (error = err.message),
    )
  $effect(() => {
    const id = session.id
    void take(getLists(id))
    return listenFor(['lists', 'frames', 'setups'], id, () => void take(getLists(id)))
  })
  const WORDS = { before: 'Before the take', after: 'After the take' } as const
</script>

<div class="mx-auto max-w-4xl p-4">
  {#if error}<p role="alert" class="text-primary">{error}</p>{/if}
  <div class="grid grid-cols-1 gap-8 md:grid-cols-2">
    {#each ['before', 'after'] as const as when (when)}
      {@const own = items.filter((i) => i.when === when)}
      <section aria-label={WORDS[when]}>
        <h2 class="flex justify-between font-semibold">
          {WORDS[when]}<span class="text-quiet">{own.filter((i) => i.ticked).length} of {own.length}</span>
        </h2>
        <ul class="mt-1">
          {#each own as item (item.id)}
            <li class="border-t border-line">
              {#if item.done === null}
                <label class="flex min-h-11 cursor-pointer items-center gap-3 py-1.5">
                  <input
                    type="checkbox"
                    class="checkbox checkbox-sm checkbox-primary rounded-xs"
                    checked={item.ticked}
                    onchange={(event) => take(tick(session.id, item.id, event.currentTarget.checked))}
                  />
                  <span class:text-quiet={item.ticked}>{item.text}</span>
                </label>
              {:else}
                <p class="flex min-h-11 items-center gap-3 py-1.5">
                  <span class="w-5 text-center" class:text-primary={!item.done} aria-label={item.done ? 'holds' : 'open'}
                    >{item.done ? '✓' : '×'}</span
                  ><span><Words text={item.text} /><span class="block {item.done ? 'text-quiet' : 'text-primary'}">{item.says}</span></span>
                </p>
              {/if}
            </li>
          {/each}
        </ul>
      </section>
    {/each}
  </div>
  <button type="button" class="btn btn-sm mt-4" onclick={() => take(clearLists(session.id))}
    >Next take: clear what was ticked by hand</button
  >
</div>
