<script lang="ts">
  import Label from './Label.svelte'
  let {
    label,
    value,
    wide = false,
    blank = false,
    onchange,
  }: { label: string; value: string; wide?: boolean; blank?: boolean; onchange: (value: string) => void } = $props()
  const id = $props.id()
</script>

<div class="flex items-center justify-between gap-2">
  <Label {label} {id} />
  <input
    {id}
    aria-describedby="{id}-means"
    class="input input-sm {wide ? '!w-60' : '!w-32'}"
    {value}
    maxlength="200"
    autocomplete="off"
    onchange={(event) => (blank || event.currentTarget.value.trim()) && onchange(event.currentTarget.value.trim())}
  />
</div>
