<script lang="ts" generics="T extends string">
  /** One of a few words, or none of them: the chosen one is pressed again to take it back. */
  let { label, value, options, onchange }: { label: string; value: T | null; options: [T, string][]; onchange: (value: T | null) => void } =
    $props()
</script>

<div class="flex items-baseline gap-2" role="group" aria-label={label}>
  <span class="label-text w-20 shrink-0" aria-hidden="true">{label}</span>
  <span class="flex flex-wrap gap-1">
    {#each options as [key, word] (key)}
      <button
        type="button"
        class="btn btn-sm"
        aria-label="{label}: {word}"
        aria-pressed={value === key}
        onclick={() => onchange(value === key ? null : key)}>{word}</button
      >
    {/each}
  </span>
</div>
