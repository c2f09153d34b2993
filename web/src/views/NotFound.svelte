<script lang="ts">
  /** An address that leads nowhere. */
  import { router } from 'svelte-spa-router'
</script>

<svelte:head><title>No such page · Ausblick</title></svelte:head>
<main class="mx-auto max-w-xl px-4 py-16">
  <h1 class="text-figure font-light">No such page</h1>
  <p class="mt-2 text-quiet">Nothing is at “{router.location}”.</p>
  <p class="mt-4 flex gap-2">
    <a class="btn btn-sm btn-primary" href="#/">To the set-ups</a><a class="btn btn-sm" href="#/kit">To the kit room</a>
  </p>
</main>
