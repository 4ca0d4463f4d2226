import type { components } from './schema'

/** What goes over the line, by the names that the page has for it. */
export type Schemas = components['schemas']
interface Member {
  placement: string
  edge: string
}
type Kind = Record<string, unknown> & { kind: string }
/** Where a part stands, and two that are joined, as the job's document has them. */
export interface PlacementDocument {
  id: string
  part: string
  pose?: Kind
}
export interface JointDocument {
  id: string
  title: string
  first: Member
  second: Member
  how?: Kind
}
export type Design = Omit<Schemas['DesignOut'], 'placements' | 'joints'> & {
  placements: PlacementDocument[]
  joints: JointDocument[]
}
export type Card = Schemas['DesignCard']
export type TableNews = Schemas['TableNews']
export type Choices = Schemas['ChoicesOut']
export type Figure = Schemas['Figure']
export type Part = Schemas['PartOut']
export type Mate = Schemas['MateOut']
export type Proof = Schemas['ProofOut']
export type CloseUp = Schemas['CloseUp']
export type Tested = Schemas['Tested']
export type Finding = Schemas['Finding']
export type Answer = Schemas['AnswerOut']
export type Stop = Schemas['Stop']
export type Step = Schemas['StepOut']
export type Board = Schemas['BoardOut']
export type FieldInfo = Schemas['FieldInfo']
export type Revision = Schemas['RevisionOut']
export type KeptFile = Schemas['KeptFileOut']
export type Operation = Step['operation']
export type Profile = Schemas['ProfileOut']
export type ProfileIn = Schemas['ProfileIn']
export type InFiles = Schemas['InFilesOut']
export type InFile = Schemas['InFileOut']
export type Paper = Schemas['PaperOut']
export type Outcome = Schemas['OutcomeIn']['outcome']
export type ProfileValues = Schemas['ProfileValues']
export type SheetTime = Schemas['SheetTimeOut']
export type Check = Schemas['CheckOut']
export type Export = Schemas['ExportOut']
export type Today = Schemas['TodayOut']
export type Session = Schemas['SessionOut']
export type Stock = Schemas['StockOut']
export type Machine = Schemas['MachineOut']
export type FileFormat = Schemas['ExportIn']['format']
export type StartIn = Schemas['StartIn']
export type DraftIn = Schemas['DraftIn']
export type TracksIn = Schemas['TracksIn']
export type Draft = Schemas['DraftOut']
export type RecipeView = Schemas['View']
export type Recipe = Schemas['RecipeOut']
/** One act: a verb, a path, and a value where there is one. */
export type Edit = Pick<Schemas['EditIn'], 'verb' | 'path'> & {
  value?: unknown
  after?: string | null
  to?: string
}
/** What has a default on the server may be left out. */
type Given<T, Needed extends keyof T> = Pick<T, Needed> & Partial<T>
export type StockIn = Given<
  Schemas['StockIn'],
  'name' | 'nominal' | 'readings' | 'sheet_width' | 'sheet_height'
>
export type MachineIn = Given<Schemas['MachineIn'], 'name' | 'bed_width' | 'bed_height' | 'kerf'>
/** Some fields of a board or machine; the server leaves the others alone. */
export type StockChange = Partial<Schemas['StockChange']>
export type MachineChange = Partial<Schemas['MachineChange']>
export type Measurement = Schemas['MeasurementOut']
export type Readings = Schemas['ReadingsOut']
export type CutSettingIn = Given<Schemas['CutSettingIn'], 'stock' | 'kind' | 'thickness'>
export type CutSetting = Schemas['CutSettingOut']
export type Way = Schemas['PieceIn']['way']
export type PieceIn = Given<Schemas['PieceIn'], 'way' | 'stock' | 'machine'>
export type Piece = Schemas['PieceOut']
export type PieceRead = Schemas['PieceReadOut']
export type ToldIn = Given<Schemas['ToldIn'], 'way' | 'stock' | 'machine'>
export type Practice = Schemas['PracticeOut']
export type Truth = Schemas['TruthOut']
export type Entry = Schemas['EntryOut']
export type Trial = Schemas['TrialOut']
export type News = Schemas['NewsOut']
export type Following = Schemas['FollowingOut']
export type Concerned = Schemas['ConcernedOut']
/** What of a job says which of its states is meant. */
export type Held = Pick<Design, 'id' | 'moves' | 'revision'>
export type Change = Schemas['ChangeOut']
export type Tried = Schemas['TriedOut']
export type Placing = Schemas['PlacingOut']
export type Together = Schemas['TogetherOut']
export type Limits = Schemas['LimitsValues']
export type KindLimitsIn = Partial<Schemas['KindLimitsIn']>
export type PairRead = Schemas['PairReadOut']
export type PlacingIn = Given<Schemas['PlacingIn'], 'act' | 'part' | 'steps'>
export type NamedLength = Schemas['LengthOut']
export type PointOnPart = Schemas['PointOnPart']
export type LineOnPart = Schemas['EdgeOnPart']
export type JobsOnBoard = Schemas['JobsOnBoard']
export type Swap = Pick<Schemas['SwapIn'], 'board'> & Partial<Schemas['SwapIn']>
export type Uses = Schemas['UsesOut']
export type Changes = Schemas['ChangesOut']
export type Task = Schemas['TaskOut']
export type Unit = Schemas['EditsIn']['unit']
