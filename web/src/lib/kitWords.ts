/** A thing of the kit in a few words, as a list has it. */
import type { Kit } from './types'
import { showLength, type LengthUnit } from './units'

export type Kind = 'screens' | 'lenses' | 'cameras' | 'lamps' | 'stands'
type Of = { [K in Kind]: Kit[K][number] }

const WORDS: { [K in Kind]: (thing: Of[K], unit: LengthUnit) => string } = {
  screens: (s, unit) =>
    `${s.hue} ${s.material}, ${showLength(s.width, unit)} × ${showLength(s.height, unit)}` +
    (s.floor_run > 0 ? `, ${showLength(s.floor_run, unit)} on the floor` : ''),
  lenses: (l) => `${l.focal_mm} mm, f/${l.f_number}${l.fixed ? ', fixed' : ''}`,
  cameras: (c) => `${c.sensor.width_mm} × ${c.sensor.height_mm} mm, ${c.recording.chroma} ${c.recording.bits} bit`,
  lamps: (l, unit) => {
    const { emitter, flux_lm, watts } = l.fixture
    const face =
      emitter.shape === 'rect'
        ? `${showLength(emitter.width, unit)} × ${showLength(emitter.height, unit)}`
        : emitter.shape === 'disc'
          ? `${showLength(emitter.diameter, unit)} across`
          : emitter.shape
    return `${face}${flux_lm ? `, ${flux_lm.toFixed(0)} lm` : ''}, ${watts.toFixed(0)} W`
  },
  stands: (s, unit) => `${showLength(s.height, unit)} high, ${s.load_kg} kg`,
}

export const inWords = <K extends Kind>(kind: K, thing: Of[K], unit: LengthUnit) => WORDS[kind](thing, unit)
