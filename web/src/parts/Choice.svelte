<script lang="ts">
  /** One of a few: a labelled select. */
  let {
    label,
    value,
    options,
    onchange,
  }: { label: string; value: string; options: [string, string][]; onchange: (value: string) => void } = $props()
  const id = $props.id()
</script>

<div class="flex items-center justify-between gap-2">
  <label for={id} class="label-text">{label}</label>
  <select {id} class="select select-sm w-32" {value} onchange={(event) => onchange(event.currentTarget.value)}>
    {#each options as [key, word] (key)}<option value={key}>{word}</option>{/each}
  </select>
</div>
