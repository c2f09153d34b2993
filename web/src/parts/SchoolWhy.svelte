<script lang="ts">
  /** What a school wants and why, where it is chosen: as its rule says it. */
  import { session } from '../lib/session.svelte'
  let { rule }: { rule: string } = $props()
  const told = $derived(session.evaluation?.check.findings.find((finding) => finding.id === rule))
</script>

{#if told}<p class="label-text">{told.why}</p>{/if}
