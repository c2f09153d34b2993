<script lang="ts">
  /** A text in which the trade's terms explain themselves. */
  import Term from './Term.svelte'
  import { cutAtTerms } from '../lib/glossary.svelte'
  let { text }: { text: string } = $props()
</script>

{#each cutAtTerms(text) as [piece, term], i (i)}{#if term}<Term {term}>{piece}</Term>{:else}{piece}{/if}{/each}
