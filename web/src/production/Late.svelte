<script lang="ts">
  /** On the day: when it will end as takes come in, and what brings it back, in minutes. */
  import { clock, daysOf, minutesOf, type OpenProduction } from '../lib/production.svelte'
  import type { Production } from '../lib/productionApi'
  import { prefs } from '../lib/prefs.svelte'
  import { say } from '../lib/say'
  let { open, document, day }: { open: OpenProduction; document: Production; day: number } = $props()

  const found = $derived(open.state?.projections[day] ?? null)
  const title = (id: string) => document.shots.find((shot) => shot.id === id)?.title || id
  const here = $derived(open.asked.day === day ? (open.asked.now ?? null) : null)
  function from(time: string) {
    open.look(time ? { day, now: minutesOf(time) } : {})
  }
  function now() {
    const at = new Date()
    from(clock(at.getHours() * 60 + at.getMinutes()))
  }
</script>

<div class="mt-2 border-t border-line pt-2">
  <div class="flex items-center gap-2">
    <label class="flex items-center gap-2"
      ><span class="label-text">It is</span><input
        type="time"
        class="input input-sm w-28"
        aria-label="Time on day {day + 1}"
        value={here === null ? '' : clock(here)}
        onchange={(event) => from(event.currentTarget.value)}
      /></label
    >
    <button type="button" class="btn btn-sm" onclick={now}>Now</button>
  </div>
  {#if found}
    <p class="mt-1" class:text-primary={found.over > 0}>
      {found.left.length} of the shots are open{found.left.length ? `: ${found.left.map(title).join(', ')}` : ''}. The day ends {clock(
        found.end,
      )}{found.over > 0 ? `, ${found.over.toFixed(0)} min after ${daysOf(document)[day].end}` : ''}.
    </p>
    {#if found.options.length}
      <ul class="mt-1" aria-label="What brings it back">
        {#each found.options as option (option.text)}
          <li class="flex justify-between gap-3 border-t border-line py-1">
            <span>{say(option.told, prefs)}</span><span class="whitespace-nowrap font-semibold">{option.minutes.toFixed(0)} min</span>
          </li>
        {/each}
      </ul>
      {#each found.keeps as words (words)}<p class="label-text">{words}.</p>{/each}
    {/if}
  {/if}
</div>
