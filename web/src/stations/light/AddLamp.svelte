<script lang="ts">
  /** One lamp more: what is free in the kit, or a kind of lamp; it comes where the set lacks one. */
  import LampPicture from '../../start/LampPicture.svelte'
  import { session } from '../../lib/session.svelte'
  import { freeLamps, LAMP_KINDS, oneMoreLamp, type LampKind } from '../../lib/startApi'
  import type { Plan } from '../../lib/types'
  let { plan }: { plan: Plan } = $props()

  let list = $state<HTMLElement>()
  let kit = $state.raw<{ name: string; count: number; free: number }[]>([])

  const opens = async () => (kit = (await freeLamps(plan).catch(() => ({ lamps: [] }))).lamps)
  async function add(lamp: { kind: LampKind } | { name: string }) {
    list?.hidePopover()
    try {
      const { light } = await oneMoreLamp(plan, lamp)
      session.change([{ path: 'lights', value: [...plan.lights, light] }])
      session.selected = `light:${light.id}`
    } catch (err) {
      session.error = (err as Error).message
    }
  }
</script>

<button type="button" data-opens-fields class="btn btn-sm [anchor-name:--add-lamp]" popovertarget="add-lamp">Add a lamp</button>
<div
  bind:this={list}
  id="add-lamp"
  popover
  class="dropdown w-80 border border-line bg-base-100 p-3 text-ink shadow-xl [position-anchor:--add-lamp]"
  ontoggle={(event) => event.newState === 'open' && void opens()}
>
  {#if kit.length}
    <p class="label-text">From the kit</p>
    <ul class="mb-2">
      {#each kit as lamp (lamp.name)}
        <li>
          <button
            type="button"
            class="flex w-full cursor-pointer justify-between border-b border-line py-1 text-left hover:text-primary"
            onclick={() => add({ name: lamp.name })}
            ><span>{lamp.name}</span><span class="label-text" class:!text-primary={lamp.free === 0}>{lamp.free} of {lamp.count} free</span
            ></button
          >
        </li>
      {/each}
    </ul>
  {/if}
  <p class="label-text mb-1">A kind of lamp, or a window of the room</p>
  <div class="grid grid-cols-3 gap-1">
    {#each LAMP_KINDS.filter(([kind]) => kind !== 'window' || plan.room.kind === 'interior') as [kind, word] (kind)}
      <button type="button" class="btn h-auto flex-col gap-0 px-1 py-1" aria-label="Add a {word}" onclick={() => add({ kind })}>
        <LampPicture {kind} /><span class="label-text">{word}</span>
      </button>
    {/each}
  </div>
</div>
