<script lang="ts">
  /** The fields of what is selected, narrow, beside it. */
  import X from '@lucide/svelte/icons/x'
  import CameraFields from './inspect/CameraFields.svelte'
  import FlagFields from './inspect/FlagFields.svelte'
  import LampFields from './inspect/LampFields.svelte'
  import PlateFields from './inspect/PlateFields.svelte'
  import RoomFields from './inspect/RoomFields.svelte'
  import ScreenFields from './inspect/ScreenFields.svelte'
  import SubjectFields from './inspect/SubjectFields.svelte'
  import WindowFields from './inspect/WindowFields.svelte'
  import { describedTerm, meaning } from '../lib/glossary.svelte'
  import { peopleOf } from '../lib/people'
  import { session } from '../lib/session.svelte'

  let { close }: { close: () => void } = $props()

  const plan = $derived(session.plan!)
  const thing = $derived(session.selected)
  const lamp = $derived(plan.lights.findIndex((l) => `light:${l.id}` === thing))
  const flag = $derived(plan.flags.findIndex((f) => `flag:${f.id}` === thing))
  const person = $derived(peopleOf(plan).find((one) => one.thing === thing) ?? null)
  const title = $derived(
    lamp >= 0
      ? `${lamp + 1} ${plan.lights[lamp].name}`
      : flag >= 0
        ? `Cloth ${plan.flags[flag].id}`
        : person
          ? person.name
          : { window: 'Window pane', room: 'Space', plate: 'Plate', screen: 'Screen', subject: 'Subject', camera: 'Camera' }[
              thing as string
            ],
  )
</script>

<section aria-label="Fields of {title}" class="flex min-h-0 flex-col">
  <header class="flex p-3 pb-2 items-center justify-between">
    <h2 class="text-body font-semibold">{title}</h2>
    <button type="button" class="cursor-pointer p-1 text-quiet hover:text-ink" aria-label="Close the fields" onclick={close}>
      <X size={14} />
    </button>
  </header>
  <div class="flex min-h-0 flex-col gap-1 overflow-y-auto px-3 pb-3">
    {#if lamp >= 0}<LampFields {plan} index={lamp} />
    {:else if flag >= 0}<FlagFields {plan} index={flag} />
    {:else if thing === 'window' && plan.window}<WindowFields {plan} />
    {:else if thing === 'camera'}<CameraFields {plan} />
    {:else if thing === 'subject' || person}<SubjectFields {person} />
    {:else if thing === 'screen'}<ScreenFields {plan} />
    {:else if thing === 'plate'}<PlateFields {plan} />
    {:else if thing === 'room'}<RoomFields {plan} />{/if}
  </div>
  {#if describedTerm()}
    <!-- Below what scrolls: it covers no field, and none moves when it goes. -->
    <p class="label-text shrink-0 border-t border-line bg-base-200 px-3 py-2" aria-hidden="true">
      {meaning(describedTerm()!)}
    </p>
  {/if}
</section>
