<script lang="ts">
  /** A state: shape first, then the word; colour only says which of them want a decision. */
  import type { State } from '../lib/types'
  let { state, word = true, size = 11 }: { state: State; word?: boolean; size?: number } = $props()
</script>

<span class="inline-flex items-center gap-1.5 whitespace-nowrap" class:text-primary={state === 'fails'}>
  <svg width={size} height={size} viewBox="0 0 12 12" aria-hidden={word} aria-label={word ? undefined : state} role="img">
    {#if state === 'holds'}
      <circle cx="6" cy="6" r="4.5" fill="none" stroke="var(--quiet)" stroke-width="1.5" />
    {:else if state === 'tight'}
      <path d="M6 1.2 11 10.5H1Z" fill="none" stroke="var(--color-primary)" stroke-width="1.5" stroke-linejoin="round" />
    {:else if state === 'fails'}
      <rect x="0.5" y="0.5" width="11" height="11" fill="var(--color-primary)" />
      <path d="M3.2 3.2 8.8 8.8M8.8 3.2 3.2 8.8" stroke="var(--color-primary-content)" stroke-width="1.6" />
    {:else}
      <circle cx="6" cy="6" r="4.5" fill="none" stroke="var(--quiet)" stroke-width="1.5" stroke-dasharray="2 2" />
    {/if}
  </svg>
  {#if word}<span class={state === 'holds' || state === 'unknown' ? 'text-quiet' : 'text-primary'}>{state}</span>{/if}
</span>
