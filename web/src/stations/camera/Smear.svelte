<script lang="ts">
  /** The fastest movement's smear, drawn at its size in recorded pixels, beside a sharp edge. */
  let { px }: { px: number | null } = $props()
  const SHOWN = 160
  const scale = $derived(px !== null && px > SHOWN * 0.7 ? (SHOWN * 0.7) / px : 1)
  const id = $props.id()
</script>

{#if px !== null}
  <figure class="mt-2 flex items-center gap-4">
    <svg width={SHOWN * 2} height="34" role="img" aria-label="Smear of {px.toFixed(0)} px beside a sharp edge">
      <defs>
        <linearGradient id="{id}-fade"
          ><stop offset="0" stop-color="var(--figure)" /><stop offset="1" stop-color="var(--figure)" stop-opacity="0" /></linearGradient
        >
      </defs>
      <rect width={SHOWN * 2} height="34" fill="var(--color-base-300)" />
      <rect width="60" height="15" fill="var(--figure)" />
      <rect y="19" width={60 - (px * scale) / 2} height="15" fill="var(--figure)" />
      <rect x={60 - (px * scale) / 2} y="19" width={px * scale} height="15" fill="url(#{id}-fade)" />
      <path
        d="M{60 - (px * scale) / 2} 17h{px * scale}M{60 - (px * scale) / 2} 14v6M{60 + (px * scale) / 2} 14v6"
        stroke="var(--color-base-content)"
      />
    </svg>
    <figcaption class="label-text">
      {px.toFixed(0)} px of smear at the fastest movement{scale < 1
        ? `, drawn at ${(100 * scale).toFixed(0)} %`
        : ', drawn pixel for pixel'}
    </figcaption>
  </figure>
{/if}
