<script lang="ts">
  /** One of a few: a labelled select. */
  import Label from './Label.svelte'
  let {
    label,
    value,
    options,
    wide = false,
    onchange,
  }: { label: string; value: string; options: [string, string][]; wide?: boolean; onchange: (value: string) => void } = $props()
  const id = $props.id()
</script>

<div class="flex items-center justify-between gap-2">
  <Label {label} {id} />
  <select
    {id}
    aria-describedby="{id}-means"
    class="select select-sm {wide ? '!w-48' : 'w-32'}"
    {value}
    onchange={(event) => onchange(event.currentTarget.value)}
  >
    {#each options as [key, word] (key)}<option value={key}>{word}</option>{/each}
  </select>
</div>
