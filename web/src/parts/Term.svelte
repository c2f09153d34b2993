<script lang="ts">
  /** A trade term that explains itself on hover and focus. */
  import { meaning } from '../lib/glossary.svelte'
  let { term, children }: { term: string; children: import('svelte').Snippet } = $props()
  let open = $state(false)
  const id = $props.id()
</script>

<span class="relative inline-block" role="presentation" onmouseenter={() => (open = true)} onmouseleave={() => (open = false)}>
  <button
    type="button"
    class="cursor-help border-b border-dotted border-quiet text-left"
    aria-describedby={open ? id : undefined}
    onfocus={() => (open = true)}
    onblur={() => (open = false)}
    onkeydown={(event) => event.key === 'Escape' && (open = false)}>{@render children()}</button
  >
  {#if open && meaning(term)}
    <span
      {id}
      role="tooltip"
      class="absolute top-full left-0 z-40 mt-1 w-56 border border-line bg-base-300 p-2 text-body text-ink shadow-lg">{meaning(term)}</span
    >
  {/if}
</span>
