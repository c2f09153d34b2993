<script lang="ts">
  /** Yes or no. */
  import Label from './Label.svelte'
  let { label, value, onchange }: { label: string; value: boolean; onchange: (value: boolean) => void } = $props()
  const id = $props.id()
</script>

<div class="flex items-center justify-between gap-2">
  <Label {label} {id} />
  <input
    {id}
    aria-describedby="{id}-means"
    type="checkbox"
    class="toggle toggle-primary"
    checked={value}
    onchange={(event) => onchange(event.currentTarget.checked)}
  />
</div>
