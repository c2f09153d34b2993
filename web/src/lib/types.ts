/** Short names for the API's types, which are generated from the server's models. */
import type { components } from './schema.generated'

type Schemas = components['schemas']
export type Plan = Schemas['Plan']
export type Light = Plan['lights'][number]
export type Place = Light['position']
export type Emitter = Light['fixture']['emitter']
export type Modifier = Light['modifier']
/** The sun or a window: nobody moves, dims or plugs it. */
export const isDaylight = (lamp: Light) => ['sun', 'window'].includes(lamp.fixture.emitter.shape)
export type Camera = Plan['camera']
export type Screen = Plan['screen']
export type Pane = NonNullable<Plan['window']>
export type Subject = NonNullable<Plan['subject']>
export type Companion = Plan['companions'][number]
export type Setup = Schemas['SetupModel']
export type SetupSummary = Schemas['SetupSummary']
export type Evaluation = Schemas['EvaluationModel']
export type Finding = Schemas['FindingReport']
export type Remedy = Schemas['RemedyReport']
export type Sentence = Schemas['Sentence']
/** Changes that can be tried on the plan: a remedy, a lever, a solution. */
export type Attempt = Pick<Remedy, 'text' | 'changes'>
export type Change = Schemas['Change']
export type NumberWhy = Schemas['Number']
export type Conflict = Schemas['ConflictModel']
export type Version = Schemas['VersionModel']
export type Frame = Schemas['FrameModel']
export type FrameSummary = Schemas['FrameSummary']
export type Comparison = Schemas['ComparisonModel']
export type Drift = Schemas['DriftModel']
export type Severity = Finding['severity']
export type State = 'holds' | 'tight' | 'fails' | 'unknown'

export const STATE_OF: Record<Severity, State> = { stop: 'fails', fix: 'fails', consider: 'tight', fine: 'holds' }

/** What is selected on the drawings: a thing of the set, or nothing. */
export type Thing = 'room' | 'plate' | 'screen' | 'subject' | 'camera' | 'window' | `${'light' | 'flag' | 'person'}:${string}`
export type Kit = Schemas['Kit']
export type Cell = Schemas['Cell']
export type RoomTable = Schemas['RoomTableModel']
export type Proposals = Schemas['ProposalsModel']
export type Alternative = Schemas['AlternativeModel']
export type Framing = Cell['framing']
export type PlateReading = Schemas['PlateReadingModel']
export type MarksBody = Schemas['MarksBody']
export type MarksResult = Schemas['MarksModel']
export type Brief = Schemas['BriefModel']
export type ScreenAdvice = Schemas['ScreenAdviceModel']
export type TrackingMarks = Schemas['TrackingMarksModel']
export type Copies = Schemas['CopiesModel']
export type PlateLight = Schemas['PlateLightModel']
export type Even = Schemas['EvenModel']
export type Distances = Schemas['DistancesModel']
export type AtDistance = Schemas['AtDistance']
export type Photometry = Schemas['PhotometryModel']
export type Probe = Schemas['ProbeReport']
export type Flag = Plan['flags'][number]
export type TestKey = Schemas['TestKeyModel']
export type Lever = Schemas['LeverReport']
export type Ledger = Schemas['LedgerModel']
export type Solution = Schemas['Solution']
export type LedgerRow = Schemas['Entry']['row']
export type RecorderRow = Schemas['Recorder']
export type Cause = Schemas['CauseModel']
export type Pose = Schemas['PoseModel']
export type Trial = Schemas['TrialModel']
export type HandReading = Schemas['HandModel']
export type ZebraReading = Schemas['ZebraModel']
export type Standin = Schemas['StandinModel']
export type Look = Schemas['LookModel']
export type Meter = Schemas['MeterModel']
export type Import = Schemas['ImportModel']
export type WatchState = Schemas['WatchModel']
export type ListItem = Schemas['ItemModel']
export type Corner = [number, number]
export type Me = Schemas['MeModel']
export type NetworkState = Schemas['NetworkModel']
