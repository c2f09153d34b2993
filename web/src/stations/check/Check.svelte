<script lang="ts">
  /** The measuring desk: frames and clips from the set, the stand-in camera, readings by hand, the lists round a take. */
  import ByHand from './ByHand.svelte'
  import Frames from './Frames.svelte'
  import Lists from './Lists.svelte'
  import StandinDesk from './StandinDesk.svelte'
  import { address, addressed } from '../../lib/address'
  import Tabs from '../../parts/Tabs.svelte'

  const PARTS = [
    ['frames', 'Frames and clips'],
    ['standin', 'Stand-in camera'],
    ['hand', 'Without scopes'],
    ['lists', 'Before and after a take'],
  ] as const
  type Part = (typeof PARTS)[number][0]
  const part = $derived<Part>(PARTS.find(([id]) => id === addressed('part'))?.[0] ?? 'frames')
  const open = (which: Part) => address('part', which === 'frames' ? null : which)
  /** A frame that was just recorded elsewhere and shall be shown. */
  let wanted = $state<number | null>(null)
</script>

<div class="flex h-full min-h-0 flex-col">
  <Tabs label="Ways to check" value={part} options={PARTS} onchange={open} class="border-b border-line px-3 pt-1" />
  <div class="min-h-0 flex-1">
    {#if part === 'frames'}<Frames {wanted} />{:else if part === 'standin'}<StandinDesk
        recorded={(id) => ((wanted = id), open('frames'))}
      />{:else if part === 'hand'}<ByHand />{:else}<Lists />{/if}
  </div>
</div>
