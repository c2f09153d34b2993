<script module lang="ts">
  import type { Conflict, Plan } from '../lib/types'

  type Collision = Conflict['collisions'][number]

  /** "left panel, dimmer" for lights[l2].dimmer. */
  export function place(path: string, plan: Plan): string {
    if (path === '') return 'The whole set-up'
    const name = /^(lights|flags)\[([^\]]+)\]/.exec(path)
    const thing = name && plan[name[1] as 'lights' | 'flags'].find((one) => one.id === name[2])
    const words = path
      .replace(name?.[0] ?? '', (thing as { name?: string } | undefined)?.name ?? name?.[2] ?? '')
      .split('.')
      .filter(Boolean)
    return words.join(', ').replaceAll('_', ' ')
  }

  export function shown(value: Collision['mine']): string {
    if (value === null) return 'none'
    if (Array.isArray(value)) return value.every((one) => typeof one !== 'object') ? value.join(' · ') : `${value.length} of them`
    return typeof value === 'object' ? 'changed' : String(value)
  }
</script>

<script lang="ts">
  import { session } from '../lib/session.svelte'

  const MOST = 3
  let { conflict }: { conflict: Conflict } = $props()
</script>

<div role="alert" class="flex flex-wrap items-center gap-3 border-b border-primary px-4 py-2">
  <div class="min-w-0 flex-1">
    <p class="text-primary">Somebody else changed the same. Yours is kept under Versions; nothing is lost.</p>
    <ul class="text-sm">
      {#each conflict.collisions.slice(0, MOST) as one (one.path)}
        <li>
          {place(one.path, conflict.current.plan)}{#if one.path}: yours <strong>{shown(one.mine)}</strong>, theirs
            <strong>{shown(one.theirs)}</strong>{/if}
        </li>
      {/each}
      {#if conflict.collisions.length > MOST}<li>and {conflict.collisions.length - MOST} more</li>{/if}
    </ul>
  </div>
  <button type="button" class="btn btn-sm btn-primary" onclick={() => session.resolve('theirs')}>Go on with theirs</button>
  <button type="button" class="btn btn-sm" onclick={() => session.resolve('mine')}>Put mine on top</button>
</div>
