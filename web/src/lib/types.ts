/** Short names for the API's types, which are generated from the server's models. */
import type { components } from './schema.generated'

type Schemas = components['schemas']
export type Plan = Schemas['Plan']
export type Light = Plan['lights'][number]
export type Setup = Schemas['SetupModel']
export type SetupSummary = Schemas['SetupSummary']
export type Evaluation = Schemas['EvaluationModel']
export type Finding = Schemas['FindingModel']
export type Remedy = Schemas['RemedyModel']
export type Change = Schemas['ChangeModel']
export type NumberWhy = Schemas['NumberModel']
export type Conflict = Schemas['ConflictModel']
export type Version = Schemas['VersionModel']
export type Frame = Schemas['FrameModel']
export type FrameSummary = Schemas['FrameSummary']
export type Comparison = Schemas['ComparisonModel']
export type Severity = Finding['severity']
export type State = 'holds' | 'tight' | 'fails' | 'unknown'

export const STATE_OF: Record<Severity, State> = { stop: 'fails', fix: 'fails', consider: 'tight', fine: 'holds' }

/** What is selected on the drawings: a thing of the set, or nothing. */
export type Thing = 'room' | 'plate' | 'screen' | 'subject' | 'camera' | 'window' | `light:${string}` | `flag:${string}`
export type Kit = Schemas['Kit']
export type Cell = Schemas['CellModel']
export type Proposals = Schemas['ProposalsModel']
export type Alternative = Schemas['AlternativeModel']
export type Framing = Cell['framing']
export type PlateReading = Schemas['PlateReadingModel']
export type MarksBody = Schemas['MarksBody']
export type MarksResult = Schemas['MarksModel']
export type Brief = Schemas['BriefModel']
export type ScreenAdvice = Schemas['ScreenAdviceModel']
export type TrackingMarks = Schemas['TrackingMarksModel']
export type CopyPlace = Schemas['CopyModel']
export type PlateLight = Schemas['PlateLightModel']
export type Even = Schemas['EvenModel']
export type Distances = Schemas['DistancesModel']
export type AtDistance = Schemas['AtDistanceModel']
export type Photometry = Schemas['PhotometryModel']
export type Probe = Schemas['ProbeModel']
export type Flag = Plan['flags'][number]
export type TestKey = Schemas['TestKeyModel']
export type Lever = Schemas['LeverModel']
export type Ledger = Schemas['LedgerModel']
export type Solution = Schemas['SolutionModel']
export type LedgerRow = Schemas['EntryModel']['row']
