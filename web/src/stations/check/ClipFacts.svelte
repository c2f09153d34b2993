<script lang="ts">
  /** What only a clip shows: its codec against the plan's, flicker, drift, and when the screen's area is left. */
  import { prefs } from '../../lib/prefs.svelte'
  import { say } from '../../lib/say'
  import type { Frame } from '../../lib/types'
  import { signed } from '../../lib/units'
  let { clip, differs }: { clip: NonNullable<Frame['clip']>; differs: string[] } = $props()
  const time = (s: number) => `${Math.floor(s / 60)}:${(s % 60).toFixed(2).padStart(5, '0')}`
</script>

<section aria-label="Clip" class="mt-2">
  <table class="table table-xs">
    <tbody>
      <tr class="border-b border-line"
        ><td class="py-1">Recorded as</td><td class="text-right font-semibold"
          >{clip.codec_name || clip.codec}, {clip.chroma ?? clip.pix_fmt}, {clip.bits} bit, {clip.mbit_s.toFixed(0)} Mbit/s, {clip.fps.toFixed(
            2,
          )} fps{clip.interlaced ? ', interlaced' : ''}</td
        ></tr
      >
      <tr class="border-b border-line"
        ><td class="py-1">Frames</td><td class="text-right font-semibold"
          >{clip.frames_said && clip.frames_said > clip.frames
            ? `${clip.frames} of ${clip.frames_said}: the file is cut short`
            : `${clip.frames}, ${time(clip.frames / clip.fps)}; the middle one is shown`}</td
        ></tr
      >
      <tr class="border-b border-line" class:text-primary={clip.flicker_percent > 0.5}
        ><td class="py-1">Flicker</td><td class="text-right font-semibold"
          >{clip.flicker_hz === null ? 'none stands out' : `${clip.flicker_percent.toFixed(2)} % at ${clip.flicker_hz.toFixed(2)} Hz`}</td
        ></tr
      >
      {#if clip.bands}
        <tr class="border-b border-line text-primary"
          ><td class="py-1">Bands</td><td class="text-right font-semibold"
            >{clip.bands.swing_percent.toFixed(1)} %, {clip.bands.standing
              ? 'standing'
              : `${Math.abs(clip.bands.travel_hz).toFixed(1)} a second, ${clip.bands.travel_hz < 0 ? 'down' : 'up'}`}, {clip.bands.spacing_percent.toFixed(
              0,
            )} % of the height apart</td
          ></tr
        >
      {/if}
      <tr class="border-b border-line"
        ><td class="py-1">Drift of the level</td><td class="text-right font-semibold">{signed(clip.drift_percent, 2)} %</td></tr
      >
    </tbody>
  </table>
  {#if clip.bands_told}<p class="mt-1 text-primary">{say(clip.bands_told, prefs)}.</p>{/if}
  {#if clip.bands_cure}<p class="mt-1">{say(clip.bands_cure, prefs)}.</p>{/if}
  {#if clip.bands_not_told}<p class="mt-1 text-quiet">{say(clip.bands_not_told, prefs)}.</p>{/if}
  {#each differs as line (line)}<p class="mt-1 text-primary">Not as planned: {line}.</p>{/each}
  {#each clip.breaches as breach (breach.begins)}
    <p class="mt-1 text-primary">From {time(breach.begins)} to {time(breach.ends)} the subject touches: {breach.sides.join(', ')}.</p>
  {/each}
</section>
