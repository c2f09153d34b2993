<script lang="ts">
  /** What kind of lamp it is, as it looks from the front. */
  import type { LampKind } from '../lib/startApi'
  let { kind }: { kind: LampKind } = $props()
</script>

<svg width="36" height="36" viewBox="0 0 36 36" aria-hidden="true" fill="none" stroke="currentColor" stroke-width="1.4">
  {#if kind === 'small-panel'}
    <rect x="11" y="9" width="14" height="12" /><path d="M18 21v11M13 32h10M14 12h8M14 15h8M14 18h8" />
  {:else if kind === 'large-panel'}
    <rect x="10" y="3" width="16" height="23" /><path d="M18 26v7M12 33h12M13 7h10M13 11h10M13 15h10M13 19h10M13 23h10" />
  {:else if kind === 'soft-box'}
    <path d="M6 6h24l-5 16H11Z" /><path d="M18 22v11M12 33h12" /><path d="M10 9h16" stroke-opacity="0.5" />
  {:else if kind === 'tube'}
    <rect x="16" y="2" width="4" height="28" rx="2" /><path d="M12 33h12M18 30v3" />
  {:else if kind === 'bulb-in-a-bowl'}
    <path d="M6 12a12 12 0 0 1 24 0Z" /><circle cx="18" cy="15" r="4" /><path d="M18 19v14M12 33h12" />
  {:else}
    <rect x="8" y="4" width="20" height="27" /><path d="M18 4v27M8 17h20" />
  {/if}
</svg>
