import createClient from 'openapi-fetch'

import { roundedText, type Style } from '../units'
import { patient } from './again'
import { connection, Problem, renewWith, signedIn } from './connection'
import type { paths } from './schema'
import type {
  Card,
  Changes,
  Check,
  Choices,
  Concerned,
  CutSetting,
  CutSettingIn,
  Design,
  Draft,
  DraftIn,
  Edit,
  Entry,
  Export,
  FileFormat,
  Following,
  Held,
  InFiles,
  JobsOnBoard,
  KeptFile,
  KindLimitsIn,
  Machine,
  MachineChange,
  MachineIn,
  Measurement,
  News,
  Operation,
  Outcome,
  PairRead,
  Paper,
  Piece,
  PieceIn,
  PieceRead,
  Placing,
  PlacingIn,
  Practice,
  Profile,
  ProfileIn,
  ProfileValues,
  Proof,
  Readings,
  Recipe,
  Revision,
  Schemas,
  Session,
  StartIn,
  Stock,
  StockChange,
  StockIn,
  Swap,
  TableNews,
  Task,
  Today,
  Together,
  ToldIn,
  TracksIn,
  Trial,
  Tried,
  Truth,
  Unit,
  Uses,
} from './types'

/** Every call to the server goes through here; nothing else fetches. */

export type * from './types'
export { Problem }

const client = createClient<paths>({ baseUrl: '/', fetch: (request) => patient(request) })
let token = ''

client.use({
  onRequest({ request }) {
    if (request.method !== 'GET') request.headers.set('X-CSRFToken', token)
    return request
  },
  onError() {
    connection.online = false
    return new Problem(
      'unreachable',
      'There is no connection to the server.',
      'Try again in a moment.',
      '',
      0,
    )
  },
})

interface Settled {
  data?: unknown
  error?: unknown
  response: Response
}

/** The client's own types lose tuples, so each call names the schema that it gets. */
async function unwrap<T>(asked: Promise<Settled>): Promise<T> {
  const { data, error, response } = await asked
  connection.online = true
  if (response.ok) return data as T
  if (response.status === 401) connection.signedOut = true
  const { code, why, fix, field, mend, theirs, mine } = (error ?? {}) as Partial<Problem>
  throw new Problem(
    code ?? 'failed',
    why ?? `The server failed (${response.status}).`,
    fix ?? 'Try again; your work so far is saved.',
    field ?? '',
    response.status,
    mend ?? '',
    theirs,
    mine,
  )
}

async function session(asked: Promise<Settled>): Promise<Session> {
  const answer = await unwrap<Session>(asked)
  token = answer.token
  if (answer.name) signedIn()
  return answer
}

function formOf(file: File): FormData {
  const form = new FormData()
  form.append('file', file)
  return form
}

const heldAt = ({ moves, revision }: Held) => ({ seen: moves, since: revision })
const at = (design_id: number) => ({ params: { path: { design_id } } })

export const api = {
  session: () => session(client.GET('/api/session')),
  signIn: (name: string, password: string) =>
    session(client.POST('/api/session', { body: { name, password } })),
  changeName: (shown: string) => session(client.PATCH('/api/session', { body: { shown } })),
  signOut: () => session(client.DELETE('/api/session')),
  choices: () => unwrap<Choices>(client.GET('/api/choices')),
  stocks: () => unwrap<Stock[]>(client.GET('/api/stocks')),
  machines: () => unwrap<Machine[]>(client.GET('/api/machines')),
  addStock: (body: StockIn) =>
    unwrap<Stock>(client.POST('/api/stocks', { body: body as Schemas['StockIn'] })),
  changeKindLimits: (kind: string, changes: KindLimitsIn) =>
    unwrap<undefined>(
      client.PATCH('/api/limits/{kind}', {
        params: { path: { kind } },
        body: changes as Schemas['KindLimitsIn'],
      }),
    ),
  changeStock: (stock_id: number, body: StockChange) =>
    unwrap<Stock>(
      client.PATCH('/api/stocks/{stock_id}', {
        params: { path: { stock_id } },
        body: body as Schemas['StockChange'],
      }),
    ),
  removeStock: (stock_id: number) =>
    unwrap<void>(client.DELETE('/api/stocks/{stock_id}', { params: { path: { stock_id } } })),
  restoreStock: (stock_id: number) =>
    unwrap<Stock>(client.POST('/api/stocks/{stock_id}/restore', { params: { path: { stock_id } } })),
  archivedStocks: () => unwrap<Stock[]>(client.GET('/api/stocks/archived')),
  archivedMachines: () => unwrap<Machine[]>(client.GET('/api/machines/archived')),
  jobsOfStock: (stock_id: number) =>
    unwrap<Uses>(client.GET('/api/stocks/{stock_id}/jobs', { params: { path: { stock_id } } })),
  jobsOfMachine: (machine_id: number) =>
    unwrap<Uses>(client.GET('/api/machines/{machine_id}/jobs', { params: { path: { machine_id } } })),
  measurements: (stock_id: number) =>
    unwrap<Measurement[]>(
      client.GET('/api/stocks/{stock_id}/measurements', { params: { path: { stock_id } } }),
    ),
  lookAtReadings: (readings: string[], unit: Unit) =>
    unwrap<Readings>(client.POST('/api/readings', { body: { readings, unit } })),
  addMachine: (body: MachineIn) =>
    unwrap<Machine>(client.POST('/api/machines', { body: body as Schemas['MachineIn'] })),
  changeMachine: (machine_id: number, body: MachineChange) =>
    unwrap<Machine>(
      client.PATCH('/api/machines/{machine_id}', {
        params: { path: { machine_id } },
        body: body as Schemas['MachineChange'],
      }),
    ),
  removeMachine: (machine_id: number) =>
    unwrap<void>(client.DELETE('/api/machines/{machine_id}', { params: { path: { machine_id } } })),
  restoreMachine: (machine_id: number) =>
    unwrap<Machine>(client.POST('/api/machines/{machine_id}/restore', { params: { path: { machine_id } } })),
  settings: (machine_id: number, stock: number | undefined, operation: Operation) =>
    unwrap<CutSetting[]>(
      client.GET('/api/machines/{machine_id}/settings', {
        params: { path: { machine_id }, query: { ...(stock ? { stock } : {}), operation } },
      }),
    ),
  addSetting: (machine_id: number, body: CutSettingIn) =>
    unwrap<CutSetting>(
      client.POST('/api/machines/{machine_id}/settings', {
        params: { path: { machine_id } },
        body: body as Schemas['CutSettingIn'],
      }),
    ),
  removeSetting: (machine_id: number, setting_id: number) =>
    unwrap<void>(
      client.DELETE('/api/machines/{machine_id}/settings/{setting_id}', {
        params: { path: { machine_id, setting_id } },
      }),
    ),
  piece: (body: PieceIn) =>
    unwrap<Piece>(client.POST('/api/test-pieces', { body: body as Schemas['PieceIn'] })),
  pieceFile: (body: PieceIn & { format: FileFormat }) =>
    unwrap<Blob>(
      client.POST('/api/test-pieces/file', { body: body as Schemas['PieceFileIn'], parseAs: 'blob' }),
    ),
  practise: (body: PieceIn & { seed: number }) =>
    unwrap<Practice>(client.POST('/api/test-pieces/practice', { body: body as Schemas['PracticeIn'] })),
  practiceTruth: (body: PieceIn & { seed: number }) =>
    unwrap<Truth>(client.POST('/api/test-pieces/practice/truth', { body: body as Schemas['PracticeIn'] })),
  readPiece: (body: ToldIn) =>
    unwrap<PieceRead>(client.POST('/api/test-pieces/read', { body: body as Schemas['ToldIn'] })),
  notebook: (machine: number, stock: number) =>
    unwrap<Entry[]>(client.GET('/api/notebook', { params: { query: { machine, stock } } })),
  addEntry: (body: ToldIn) =>
    unwrap<Entry[]>(client.POST('/api/notebook', { body: body as Schemas['ToldIn'] })),
  strikeEntry: (entry_id: number, valid: boolean) =>
    unwrap<void>(client.PUT('/api/notebook/{entry_id}', { params: { path: { entry_id } }, body: { valid } })),
  tried: (id: number, edits: readonly Edit[], unit: Unit) =>
    unwrap<Tried>(
      client.POST('/api/designs/{design_id}/tried', {
        ...at(id),
        body: { edits: edits as Schemas['EditIn'][], unit },
      }),
    ),
  /** The edits that put steps where they are wanted, and what those would do. Nothing is kept. */
  placing: (id: number, asked: PlacingIn) =>
    unwrap<Placing>(
      client.POST('/api/designs/{design_id}/placing', {
        ...at(id),
        body: asked as Schemas['PlacingIn'],
      }),
    ),
  saveRecipe: (id: number, title: string, open: string[]) =>
    unwrap<Recipe>(client.POST('/api/designs/{design_id}/recipe', { ...at(id), body: { title, open } })),
  removeRecipe: (name: string) =>
    unwrap<undefined>(client.DELETE('/api/recipes/{name}', { params: { path: { name } } })),
  jobsOnBoard: (stock_id: number, readings: string[], unit: Unit) =>
    unwrap<JobsOnBoard>(
      client.POST('/api/designs/on-board/{stock_id}', {
        params: { path: { stock_id } },
        body: { readings, unit },
      }),
    ),
  tries: (id: number, swaps: Swap[]) =>
    unwrap<Trial[]>(
      client.POST('/api/designs/{design_id}/tries', {
        ...at(id),
        body: { swaps: swaps as Schemas['SwapIn'][] },
      }),
    ),
  trialPair: (id: number, joint: string) =>
    unwrap<Design>(
      client.POST('/api/designs/{design_id}/trial-pair', {
        ...at(id),
        body: { joint } as Schemas['TrialPairIn'],
      }),
    ),
  readTrialPair: (id: number, joint: string, answers: string[]) =>
    unwrap<PairRead>(
      client.POST('/api/designs/{design_id}/trial-pair/read', { ...at(id), body: { joint, answers } }),
    ),
  together: (id: number) => unwrap<Together>(client.GET('/api/designs/{design_id}/together', at(id))),
  news: (id: number) => unwrap<News[]>(client.GET('/api/designs/{design_id}/news', at(id))),
  /** What following the workshop would make of a job; nothing is kept. */
  following: (id: number) => unwrap<Following>(client.GET('/api/designs/{design_id}/following', at(id))),
  follow: (held: Held) =>
    unwrap<Design | Changes>(
      client.POST('/api/designs/{design_id}/follow', {
        ...at(held.id),
        body: { seen: held.moves, revision: held.revision },
      }),
    ),
  /** The jobs that the workshop says something newer of. */
  concerned: () => unwrap<Concerned[]>(client.GET('/api/designs/concerned')),
  saveVariant: (id: number, name: string, swap: Swap) =>
    unwrap<Design>(client.POST('/api/designs/{design_id}/variants', { ...at(id), body: { name, ...swap } })),
  designs: () => unwrap<Card[]>(client.GET('/api/designs')),
  tableNews: () => unwrap<TableNews[]>(client.GET('/api/designs/news')),
  duplicate: (id: number) => unwrap<Design>(client.POST('/api/designs/{design_id}/duplicate', at(id))),
  archived: () => unwrap<Card[]>(client.GET('/api/designs/archived')),
  start: (body: StartIn) => unwrap<Design>(client.POST('/api/designs', { body })),
  draft: (body: DraftIn) => unwrap<Draft>(client.POST('/api/designs/draft', { body })),
  tracks: (body: TracksIn) =>
    unwrap<Record<string, string>>(client.POST('/api/designs/draft/tracks', { body })),
  design: (id: number) => unwrap<Design>(client.GET('/api/designs/{design_id}', at(id))),
  /** Edits of a job as `held`: what comes back may be only what is other then. */
  edit: (held: Design, edits: readonly Edit[], unit: Unit) =>
    unwrap<Design | Changes>(
      client.POST('/api/designs/{design_id}/edits', {
        ...at(held.id),
        body: { edits: edits as Schemas['EditIn'][], unit, ...heldAt(held), revision: held.revision },
      }),
    ),
  history: (id: number) => unwrap<Revision[]>(client.GET('/api/designs/{design_id}/history', at(id))),
  go: (held: Design, revision: number) =>
    unwrap<Design | Changes>(
      client.POST('/api/designs/{design_id}/go', { ...at(held.id), body: { revision, ...heldAt(held) } }),
    ),
  packedAddress: (id: number) => `/api/designs/${id}/packed`,
  unpack: (file: File) =>
    unwrap<Design>(
      client.POST('/api/designs/packed', { body: { file: '' }, bodySerializer: () => formOf(file) }),
    ),
  keepFile: (file: File) =>
    unwrap<KeptFile>(client.POST('/api/files', { body: { file: '' }, bodySerializer: () => formOf(file) })),
  undo: (held: Held) =>
    unwrap<Design | Changes>(
      client.POST('/api/designs/{design_id}/undo', { ...at(held.id), body: heldAt(held) }),
    ),
  redo: (held: Design) =>
    unwrap<Design | Changes>(
      client.POST('/api/designs/{design_id}/redo', { ...at(held.id), body: heldAt(held) }),
    ),
  remove: (id: number) => unwrap<void>(client.DELETE('/api/designs/{design_id}', at(id))),
  restore: (id: number) => unwrap<Card>(client.POST('/api/designs/{design_id}/restore', at(id))),
  proof: (id: number) => unwrap<Proof | Task>(client.GET('/api/designs/{design_id}/proof', at(id))),
  task: (task_id: number) =>
    unwrap<Task>(client.GET('/api/tasks/{task_id}', { params: { path: { task_id } } })),
  taskAnswer: <T>(task_id: number) =>
    unwrap<T>(client.GET('/api/tasks/{task_id}/answer', { params: { path: { task_id } } })),
  cancelTask: (task_id: number) =>
    unwrap<void>(client.DELETE('/api/tasks/{task_id}', { params: { path: { task_id } } })),
  exports: (id: number) => unwrap<Export[]>(client.GET('/api/designs/{design_id}/exports', at(id))),
  export: (id: number, format: FileFormat, profile: ProfileValues, machine: number | null) =>
    unwrap<Export[] | Task>(
      client.POST('/api/designs/{design_id}/exports', { ...at(id), body: { format, profile, machine } }),
    ),
  profiles: () => unwrap<Profile[]>(client.GET('/api/profiles')),
  inFiles: (id: number, format: FileFormat, profile: ProfileValues, machine: number | null) =>
    unwrap<InFiles | Task>(
      client.POST('/api/designs/{design_id}/in-files', { ...at(id), body: { format, profile, machine } }),
    ),
  tellOutcome: (export_id: number, outcome: Outcome) =>
    unwrap<Export>(
      client.PATCH('/api/exports/{export_id}', { params: { path: { export_id } }, body: { outcome } }),
    ),
  addProfile: (body: ProfileIn) => unwrap<Profile>(client.POST('/api/profiles', { body })),
  changeProfile: (profile_id: number, body: ProfileIn) =>
    unwrap<Profile>(client.PUT('/api/profiles/{profile_id}', { params: { path: { profile_id } }, body })),
  check: (file: File) =>
    unwrap<Check | Task>(
      client.POST('/api/check', { body: { file: '' }, bodySerializer: () => formOf(file) }),
    ),
  jobSheetAddress: (id: number, style: Style, form: 'html' | 'pdf', paper: string) => {
    const given = { ...readerOf(style), form, paper }
    return `/api/designs/${id}/job-sheet?${new URLSearchParams(given).toString()}`
  },
  proofPaper: (id: number, style: Style, paper: string) =>
    unwrap<Paper | Task>(
      client.GET('/api/designs/{design_id}/proof-paper', {
        params: { path: { design_id: id }, query: { ...readerOf(style), paper } },
      }),
    ),
  today: (export_id: number) =>
    unwrap<Today>(client.GET('/api/exports/{export_id}/today', { params: { path: { export_id } } })),
  fileAddress: (id: number) => `/api/exports/${id}/file`,
}

type ReaderIn = { unit: Unit; fractions: '0' | '8' | '16' | '32' | '64'; mark: '.' | ',' }

/** How whoever reads a page writes numbers. */
function readerOf({ unit, finest, locale }: Style): ReaderIn {
  const mark = roundedText(0.5, 1, { locale }).charAt(1) === ',' ? ',' : '.'
  return { unit, fractions: String(finest) as ReaderIn['fractions'], mark }
}

renewWith(api.session)
