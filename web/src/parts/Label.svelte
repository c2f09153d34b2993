<script lang="ts">
  /** A field's caption. A trade term in it is marked: its meaning shows on hover, below the fields while the field has
      the focus, and is the field's description for those who hear it. */
  import { describe, meaning, termsIn, undescribe } from '../lib/glossary.svelte'
  let { label, id }: { label: string; id: string } = $props()
  const term = $derived(termsIn(label)[0])

  $effect(() => {
    const field = document.getElementById(id)
    if (!field || !term) return
    const [on, off] = [() => describe(term), () => undescribe(term)]
    field.addEventListener('focus', on)
    field.addEventListener('blur', off)
    return () => {
      field.removeEventListener('focus', on)
      field.removeEventListener('blur', off)
    }
  })
</script>

{#if term}
  <label for={id} class="label-text cursor-help underline decoration-dotted underline-offset-2" title={meaning(term)}>{label}</label>
  <span id="{id}-means" hidden>{meaning(term)}</span>
{:else}
  <label for={id} class="label-text">{label}</label>
{/if}
