<script lang="ts">
  /** The measuring desk: frames and clips from the set, the stand-in camera, readings by hand, the lists round a take. */
  import ByHand from './ByHand.svelte'
  import Frames from './Frames.svelte'
  import Lists from './Lists.svelte'
  import StandinDesk from './StandinDesk.svelte'

  const PARTS = [
    ['frames', 'Frames and clips'],
    ['standin', 'Stand-in camera'],
    ['hand', 'Without scopes'],
    ['lists', 'Before and after a take'],
  ] as const
  let part = $state<(typeof PARTS)[number][0]>('frames')
  /** A frame that was just recorded elsewhere and shall be shown. */
  let wanted = $state<number | null>(null)
</script>

<div class="flex h-full min-h-0 flex-col">
  <div class="flex gap-x-4 overflow-x-auto border-b border-line px-3 pt-2 whitespace-nowrap" role="group" aria-label="Ways to check">
    {#each PARTS as [which, word] (which)}
      <button
        type="button"
        class="cursor-pointer border-b pb-1 {part === which
          ? 'border-primary font-semibold'
          : 'border-transparent text-quiet hover:text-ink'}"
        aria-pressed={part === which}
        onclick={() => (part = which)}>{word}</button
      >
    {/each}
  </div>
  <div class="min-h-0 flex-1">
    {#if part === 'frames'}<Frames {wanted} />{:else if part === 'standin'}<StandinDesk
        recorded={(id) => ((wanted = id), (part = 'frames'))}
      />{:else if part === 'hand'}<ByHand />{:else}<Lists />{/if}
  </div>
</div>
