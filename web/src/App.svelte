<script lang="ts">
  import Router from 'svelte-spa-router'
  import { askWho } from './lib/networkApi'
  import { who } from './lib/who.svelte'
  import CompareView from './views/CompareView.svelte'
  import DoorView from './views/DoorView.svelte'
  import KitRoom from './views/KitRoom.svelte'
  import NetworkView from './views/NetworkView.svelte'
  import SetupList from './views/SetupList.svelte'
  import SetupView from './views/SetupView.svelte'

  const routes = {
    '/': SetupList,
    '/kit': KitRoom,
    '/network': NetworkView,
    '/compare/:a/:b': CompareView,
    '/setup/:id': SetupView,
    '/setup/:id/:station': SetupView,
    '*': SetupList,
  }
  void askWho()
</script>

{#if who.me === 'stranger'}<DoorView />{:else if who.me}<Router {routes} />{/if}
