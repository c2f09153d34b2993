<script lang="ts" generics="Key extends string">
  /** One of several panels. Arrow keys go along, as everywhere where tabs are. */
  let {
    label,
    value,
    options,
    onchange,
    class: extra = '',
  }: {
    label: string
    value: Key
    options: readonly (readonly [Key, string])[]
    onchange: (key: Key) => void
    class?: string
  } = $props()

  const buttons: HTMLButtonElement[] = $state([])

  function along(event: KeyboardEvent, at: number) {
    const step = { ArrowRight: 1, ArrowLeft: -1 }[event.key]
    if (!step) return
    event.preventDefault()
    const next = (at + step + options.length) % options.length
    onchange(options[next][0])
    buttons[next].focus()
  }
</script>

<div role="tablist" aria-label={label} class="tabs tabs-border flex-nowrap gap-4 overflow-x-auto whitespace-nowrap {extra}">
  {#each options as [key, word], i (key)}
    <button
      bind:this={buttons[i]}
      type="button"
      role="tab"
      class="tab"
      class:tab-active={value === key}
      aria-selected={value === key}
      tabindex={value === key ? 0 : -1}
      onkeydown={(event) => along(event, i)}
      onclick={() => onchange(key)}>{word}</button
    >
  {/each}
</div>
