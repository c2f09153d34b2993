<script lang="ts" generics="T extends string | boolean">
  /** A few words of which one holds, quiet enough for a caption; each is large enough for a thumb. */
  let {
    value,
    options,
    onchange,
    accent = false,
  }: { value: T; options: readonly (readonly [T, string])[]; onchange: (value: T) => void; accent?: boolean } = $props()
  const held = $derived(accent ? 'text-primary' : 'text-ink')
</script>

{#each options as [which, word] (which)}
  <button
    type="button"
    class="min-h-6 cursor-pointer {value === which ? `${held} underline underline-offset-2` : 'hover:text-ink'}"
    aria-pressed={value === which}
    onclick={() => onchange(which)}>{word}</button
  >
{/each}
