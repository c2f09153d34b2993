<script lang="ts">
  /** Outdoors: where the sun stands for a place and a time, seen along the camera's heading. */
  import NumberField from '../../parts/NumberField.svelte'
  import { sun } from '../../lib/moveApi'
  import type { PlateLight } from '../../lib/types'
  let { take }: { take: (light: PlateLight) => void } = $props()

  let place = $state({ latitude: 52, longitude: 10, heading: 0 })
  let when = $state(new Date().toISOString().slice(0, 16))
  let light = $state.raw<PlateLight | null>(null)
  let error = $state('')

  async function ask() {
    try {
      light = await sun(place.latitude, place.longitude, new Date(when).toISOString(), place.heading)
      error = ''
    } catch (err) {
      error = (err as Error).message
    }
  }
</script>

<details class="mt-2">
  <summary class="cursor-pointer font-semibold">Sun for a place and a time</summary>
  <div class="grid grid-cols-2 gap-x-6 gap-y-1 pt-1 max-sm:grid-cols-1">
    <NumberField
      label="Latitude"
      unit="°"
      digits={3}
      step={1}
      min={-90}
      max={90}
      value={place.latitude}
      onchange={(v) => (place.latitude = v)}
    />
    <NumberField
      label="Longitude"
      unit="°"
      digits={3}
      step={1}
      min={-180}
      max={180}
      value={place.longitude}
      onchange={(v) => (place.longitude = v)}
    />
    <NumberField
      label="Camera looks to"
      unit="°"
      digits={0}
      step={5}
      min={-360}
      max={360}
      value={place.heading}
      onchange={(v) => (place.heading = v)}
    />
    <label class="flex items-center justify-between gap-2"
      ><span class="label-text">Date and time here</span><input
        type="datetime-local"
        class="input input-sm !w-44"
        bind:value={when}
      /></label
    >
  </div>
  <div class="mt-1 flex items-center gap-3">
    <button type="button" class="btn btn-sm" onclick={ask}>Where is the sun</button>
    {#if light}
      <span role="status"
        >{light.elevation < 0
          ? 'Below the horizon.'
          : `${Math.abs(light.azimuth).toFixed(0)}° ${light.azimuth < 0 ? 'left' : 'right'} of the camera, ${light.elevation.toFixed(0)}° up.`}</span
      >
      {#if light.elevation >= 0}<button type="button" class="btn btn-sm" onclick={() => take(light!)}>Take as the plate's light</button
        >{/if}
    {/if}
  </div>
  {#if error}<p role="alert" class="text-primary">{error}</p>{/if}
  <p class="label-text mt-1">Heading: 0° north, 90° east.</p>
</details>
