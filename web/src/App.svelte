<script lang="ts">
  import Router from 'svelte-spa-router'
  import CompareView from './views/CompareView.svelte'
  import KitRoom from './views/KitRoom.svelte'
  import SetupList from './views/SetupList.svelte'
  import SetupView from './views/SetupView.svelte'

  const routes = {
    '/': SetupList,
    '/kit': KitRoom,
    '/compare/:a/:b': CompareView,
    '/setup/:id': SetupView,
    '/setup/:id/:station': SetupView,
    '*': SetupList,
  }
</script>

<Router {routes} />
