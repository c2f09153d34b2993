<script lang="ts">
  import Router from 'svelte-spa-router'
  import { askWho } from './lib/networkApi'
  import { who } from './lib/who.svelte'
  import CompareView from './views/CompareView.svelte'
  import DoorView from './views/DoorView.svelte'
  import GlossaryView from './views/GlossaryView.svelte'
  import KitRoom from './views/KitRoom.svelte'
  import NewSetup from './views/NewSetup.svelte'
  import NetworkView from './views/NetworkView.svelte'
  import NotFound from './views/NotFound.svelte'
  import ProductionView from './views/ProductionView.svelte'
  import TakesView from './views/TakesView.svelte'
  import SetupList from './views/SetupList.svelte'
  import SetupView from './views/SetupView.svelte'

  const routes = {
    '/': SetupList,
    '/new': NewSetup,
    '/words': GlossaryView,
    '/kit': KitRoom,
    '/network': NetworkView,
    '/production/:id/takes': TakesView,
    '/production/:id': ProductionView,
    '/production/:id/:part': ProductionView,
    '/compare/:a/:b': CompareView,
    '/setup/:id': SetupView,
    '/setup/:id/:station': SetupView,
    '*': NotFound,
  }
  void askWho()
</script>

{#if who.me === 'stranger'}<DoorView />{:else if who.me}<Router {routes} />{/if}
