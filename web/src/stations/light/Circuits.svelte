<script lang="ts">
  /** What the lamps draw, circuit by circuit, undimmed. */
  import { session } from '../../lib/session.svelte'
  const loads = $derived((session.evaluation?.loads ?? []).filter((load) => load.watts > 0))
</script>

{#if loads.length}
  <h2 class="mt-3 font-semibold">Circuits</h2>
  <ul>
    {#each loads as load (load.circuit)}
      {@const share = load.rated_amps ? load.amps / load.rated_amps : null}
      <li class="flex items-center gap-3 border-t border-line py-0.5">
        <span class="w-6">{load.circuit}</span>
        <svg width="120" height="8" aria-hidden="true">
          <rect width="120" height="8" fill="var(--faint)" />
          <rect
            width={120 * Math.min(1, share ?? 0)}
            height="8"
            fill={share !== null && share > 0.8 ? 'var(--color-primary)' : 'var(--figure)'}
          />
          <path d="M96 0v8" stroke="var(--color-base-content)" />
        </svg>
        <span class="flex-1 text-right">{load.watts.toFixed(0)} W</span>
        <span class="w-32 text-right">{load.amps.toFixed(1)} {load.rated_amps ? `of ${load.rated_amps} A` : 'A, rating unknown'}</span>
      </li>
    {/each}
  </ul>
  <p class="label-text mt-1">Counted undimmed, to four fifths of the rating. Follow local codes; ask a licensed electrician.</p>
{/if}
