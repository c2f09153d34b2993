<script lang="ts">
  /** Yes or no. */
  let { label, value, onchange }: { label: string; value: boolean; onchange: (value: boolean) => void } = $props()
  const id = $props.id()
</script>

<div class="flex items-center justify-between gap-2">
  <label for={id} class="label-text">{label}</label>
  <input {id} type="checkbox" class="toggle toggle-primary" checked={value} onchange={(event) => onchange(event.currentTarget.checked)} />
</div>
