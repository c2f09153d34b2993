<script lang="ts">
  /** What the kit's cameras and recorders would make of this plan, best first. */
  import { recorders } from '../../lib/kitApi'
  import { opened } from '../../lib/resource.svelte'
  import { session } from '../../lib/session.svelte'
  import type { Plan, RecorderRow } from '../../lib/types'
  let { plan }: { plan: Plan } = $props()

  const compared = opened<RecorderRow[]>()
  const rows = $derived(compared.value ?? [])
  const problem = $derived(compared.error)
  const asked = $derived(JSON.stringify([plan.camera.recording, plan.camera.sensor, plan.camera.fps]))
  $effect(() => {
    void asked
    void compared.ask((signal) => recorders(session.plan ?? plan, signal))
  })
  const attempt = (row: RecorderRow) => void session.attempt({ text: `Record with ${row.name}`, changes: row.changes })
</script>

{#if problem}<p role="alert" class="mt-1 text-primary">{problem}</p>{/if}
{#if rows.length}
  <h3 class="mt-3 font-semibold">Recorders of the kit</h3>
  <table class="table table-xs mt-1">
    <thead
      ><tr class="label-text text-left"
        ><th class="font-normal">Recorder</th><th class="font-normal">keeps</th><th class="text-right font-normal">bits a pixel</th><th
          class="text-right font-normal">GB a minute</th
        ><th class="text-right font-normal">256 GB hold</th><th class="text-right font-normal">in the plan</th></tr
      ></thead
    >
    <tbody>
      {#each rows as row, i (i)}
        <tr class="border-t border-line">
          <td class="py-0.5">{row.name}</td>
          <td>{row.recording.chroma}, {row.recording.bits} bit</td>
          <td class="text-right">{row.bits_a_pixel.toFixed(2)}</td>
          <td class="text-right">{row.gb_minute.toFixed(2)}</td>
          <td class="text-right">{row.card_minutes.toFixed(0)} min</td>
          <td class="w-14 text-right"
            >{#if row.chosen}<span class="text-quiet">now</span>{:else}<button
                type="button"
                class="btn btn-sm"
                aria-label="Try: {row.name}"
                onclick={() => attempt(row)}>Try</button
              >{/if}</td
          >
        </tr>
      {/each}
    </tbody>
  </table>
  <p class="label-text mt-1">Their key on this set is compared among the levers of the test key.</p>
{/if}
