<script lang="ts">
  /** Two pictures of the same place, divided by a line that is dragged or moved with the arrow keys. */
  let { left, right, leftName, rightName }: { left: string; right: string; leftName: string; rightName: string } = $props()
  let at = $state(50)
</script>

<div class="relative inline-block max-h-full max-w-full">
  <img src={right} alt={rightName} class="block max-h-full max-w-full object-contain" />
  <img src={left} alt={leftName} class="absolute inset-0 h-full w-full object-contain" style:clip-path={`inset(0 ${100 - at}% 0 0)`} />
  <span class="pointer-events-none absolute inset-y-0 w-px bg-primary" style:left={`${at}%`}></span>
  <span class="pointer-events-none absolute bottom-1 left-1 bg-base-300/80 px-1">{leftName}</span>
  <span class="pointer-events-none absolute right-1 bottom-1 bg-base-300/80 px-1">{rightName}</span>
  <input
    type="range"
    min="0"
    max="100"
    step="1"
    bind:value={at}
    aria-label="Divide {leftName} from {rightName}"
    class="absolute inset-0 h-full w-full cursor-ew-resize opacity-0"
  />
</div>
