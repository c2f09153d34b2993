<script lang="ts">
  /** A time of the day, "HH:MM"; empty where it may be left out. */
  let { label, value, onchange }: { label: string; value: string; onchange: (value: string) => void } = $props()
  const id = $props.id()
</script>

<div class="flex items-center justify-between gap-2">
  <label for={id} class="label-text">{label}</label>
  <input {id} type="time" class="input input-sm w-32" {value} onchange={(event) => onchange(event.currentTarget.value)} />
</div>
