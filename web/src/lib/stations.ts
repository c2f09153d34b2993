/** The stations on the sight line, in the order of the work, and what each one tells. */
import { STATE_OF, type Evaluation, type Finding, type Plan, type State, type Thing } from './types'
import { showLength, showValue, type LengthUnit, type LightUnit } from './units'

export type StationId = 'plate' | 'space' | 'screen' | 'light' | 'subject' | 'camera' | 'key' | 'check'
export type Station = { id: StationId; name: string; term: string; thing: Thing | null }

export const STATIONS: Station[] = [
  { id: 'plate', name: 'Plate', term: 'plate', thing: 'plate' },
  { id: 'space', name: 'Space', term: 'mark', thing: 'room' },
  { id: 'screen', name: 'Screen', term: 'margin', thing: 'screen' },
  { id: 'light', name: 'Screen light', term: 'spread', thing: null },
  { id: 'subject', name: 'Subject', term: 'stop', thing: 'subject' },
  { id: 'camera', name: 'Camera', term: 'smear', thing: 'camera' },
  { id: 'key', name: 'Test key', term: 'matte', thing: null },
  { id: 'check', name: 'Check', term: 'waveform', thing: null },
]

/** The worst state among a stage's findings; unknown where nothing is judged yet. */
export function stateOf(findings: Finding[], stage: StationId): State {
  const states = findings.filter((f) => f.stage === stage).map((f) => STATE_OF[f.severity])
  return (['fails', 'tight', 'holds'] as const).find((state) => states.includes(state)) ?? 'unknown'
}

export type Telling = { value: string; note: string }

/** Measures whose own name is too long for the line. */
const SHORT: Record<string, string> = {
  'space.in-picture': 'in the picture',
  'space.framed': 'out of picture',
  'light.behind': 'through cloth',
  'light.two-zones': 'by face lamps',
  'subject.two-zones': 'by screen lamps',
  'subject.exposure': 'face, to grey',
  'key.motion': 'lost of hand',
}

/** What each station tells when nothing worse is to be told. */
const OWN: Record<string, string> = { screen: 'screen.margin', light: 'light.level', subject: 'subject.exposure', camera: 'camera.smear' }

/** The one telling number of a station: its own, unless something else of that stage is worse. */
export function telling(id: StationId, plan: Plan, e: Evaluation | null, length: LengthUnit, light: LightUnit): Telling {
  const mine = (e?.check.findings ?? []).filter((f) => f.stage === id)
  const own = mine.find((f) => f.id === OWN[id])
  const worst = mine[0]
  if (worst && own && worst.id !== own.id && rank(worst) < rank(own) && worst.value !== null && (worst.unit || worst.id.startsWith('key.')))
    return { value: signed(showValue(worst.value, worst.unit, worst.digits, length, light), worst), note: SHORT[worst.id] ?? worst.measure }
  return usual(id, plan, e, length, light)
}

/** The quality that a test key would have, beside the one that was keyed last. */
export function keyTelling(predicted: number | undefined, keyed: number | null | undefined, stale: boolean): Telling {
  if (keyed != null && !stale) return { value: keyed.toFixed(0), note: 'of 100, keyed' }
  if (predicted === undefined) return { value: 'Try', note: 'a test key' }
  const note = keyed == null ? 'predicted' : `predicted, was ${keyed.toFixed(0)}`
  return { value: `≈ ${predicted.toFixed(0)}`, note }
}

const rank = (f: Finding) => ['fails', 'tight', 'holds'].indexOf(STATE_OF[f.severity])
const signed = (text: string, f: Finding) => (f.unit === 'stops' && (f.value ?? 0) > 0 ? `+${text}` : text)

function usual(id: StationId, plan: Plan, e: Evaluation | null, length: LengthUnit, light: LightUnit): Telling {
  const { coverage, screen, exposure, blur } = e?.check ?? {}
  const show = (value: number | null | undefined, unit: string, digits: number) => showValue(value ?? null, unit, digits, length, light)
  switch (id) {
    case 'plate':
      return { value: `${plan.plate.mean_level.toFixed(0)} %`, note: 'mean level' }
    case 'space':
      return { value: plan.subject ? showLength(plan.subject.z, length) : '–', note: 'mark to screen' }
    case 'screen':
      return { value: show(coverage?.margin_m, 'm', 2), note: 'to spare' }
    case 'light':
      return {
        value: show(e?.map.trace === 'luma' ? screen?.level_luma : screen?.level_key_channel, '%', 0),
        note: screen ? `${show(screen.spread_stops, 'stops', 2)} spread` : 'no light',
      }
    case 'subject':
      return {
        value: `${(exposure?.stops_over ?? 0) > 0 ? '+' : ''}${show(exposure?.stops_over, 'stops', 1)}`,
        note: `skin ${show(exposure?.subject_level, '%', 0)}`,
      }
    case 'camera':
      return { value: show(blur?.motion_px, 'px', 0), note: 'smear' }
    case 'key':
      return keyTelling(e?.check.predicted?.quality, null, false)
    case 'check':
      return { value: 'Frames', note: 'from the set' }
  }
}
