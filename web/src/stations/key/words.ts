/** A part of a test key in words; a companion's is named with a number: hair2 is that of the second in the picture. */
export function windowName(name: string, companions: { name?: string }[] = []): string {
  if (name === 'whole') return 'whole frame'
  const [, part, number] = /^(\D+)(\d*)$/.exec(name) ?? ['', name, '']
  if (!number) return `${part}, 1:1`
  return `${part} of ${companions[+number - 2]?.name ?? `person ${number}`}, 1:1`
}
export const VIEWS: Record<string, string> = {
  frame: 'as recorded',
  clean: 'before noise and codec',
  matte: 'matte',
  second: 'matte, chroma distance',
  truth: 'true matte',
  difference: 'difference',
  deviation: 'level of the screen',
  plate: 'over the plate',
  dark: 'over dark',
  bright: 'over bright',
}
/** Label, unit, digits, and how it is measured. */
export const PARTS: Record<string, [string, string, number, string]> = {
  matte_loss: [
    'Figure keyed away',
    '% of the solid figure',
    1,
    'Mean of what is missing from the matte inside the figure: cloth, skin or a prop that has the screen in its colour.',
  ],
  edge_error: [
    'Edge of the body',
    'raw matte error, 0 to 1',
    3,
    'Mean distance of the matte, before its clips, from the true matte within three pixels of the outline; hair, hand and what is seen through glass left out.',
  ],
  hair_error: ['Hair', 'raw matte error, 0 to 1', 3, 'The same within three pixels of loose hair, pixel for pixel of the sensor.'],
  motion_error: [
    'Moving hand',
    'matte error, cm²',
    1,
    'Distance of the clipped matte from the true one round the moving hand, added up as area at the mark.',
  ],
  needed_clip: [
    'Clip the screen needs',
    'share of the matte',
    3,
    'The 99.5th percentile of the raw matte over the whole flat screen against its median: unevenness, shadow and folds in one number.',
  ],
  composite_error: [
    'Composite',
    'signal error at the edge, the worse of dark and bright',
    3,
    'The keyed figure over a dark (0.01) and a bright (0.7) ground against the true one, mean error of the signal at the outline.',
  ],
  screen_left: [
    'Screen colour left',
    'signal at the edge after despill',
    3,
    'Key channel above the mean of the others in the outline after despill.',
  ],
}
