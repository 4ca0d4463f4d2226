<script setup lang="ts">
import { computed, onMounted, reactive, ref, shallowRef, watch } from 'vue'
import { useRoute } from 'vue-router'

import {
  api,
  Problem,
  type Choices,
  type Entry,
  type FileFormat,
  type Machine,
  type Piece,
  type PieceIn,
  type PieceRead,
  type Stock,
  type ToldIn,
  type Way,
} from '../api/client'
import EntryList from '../components/EntryList.vue'
import PieceDrawing from '../components/PieceDrawing.vue'
import ProblemNote from '../components/ProblemNote.vue'
import ReadingsList from '../components/ReadingsList.vue'
import TextField from '../components/TextField.vue'
import WorkshopLayout from '../components/WorkshopLayout.vue'
import { save } from '../rack'
import { useSettings } from '../stores/settings'
import { inUnit, lengthText, shortText } from '../units'

/** The kerf notebook: a test piece for a board and a machine, what it tells, and every page written so far. */
const settings = useSettings()
const route = useRoute()
const rack = shallowRef<Stock[]>([])
const machines = shallowRef<Machine[]>([])
const choices = shallowRef<Choices | null>(null)
const stock = ref<number | null>(null)
const machine = ref<number | null>(null)
const way = ref<Way>('slats')
const WAYS: Record<Way, [string, string]> = {
  slats: ['Row of slats', 'the kerf, most exactly'],
  plug: ['Plug and hole', 'the kerf, with one cut'],
  comb: ['Fit comb', 'how tight each fit is'],
}

const piece = shallowRef<Piece | null>(null)
const entries = shallowRef<Entry[]>([])
const read = shallowRef<PieceRead | null>(null)
const problem = shallowRef<Problem | null>(null)
const note = ref('')
const kept = ref('')
const seed = ref('1')
const practised = ref('')
/** What was typed stays with its way, whatever else is looked at in between. */
const sizes = reactive<Record<Way, Record<string, string>>>({ slats: {}, plug: {}, comb: {} })
const told = reactive<{ row: string[]; hole: string[]; plug: string[]; answers: string[] }>({
  row: [],
  hole: [],
  plug: [],
  answers: [],
})
const measured = reactive<Record<'row' | 'hole' | 'plug', number[]>>({ row: [], hole: [], plug: [] })

const body = computed<PieceIn | null>(() =>
  stock.value && machine.value
    ? {
        way: way.value,
        stock: stock.value,
        machine: machine.value,
        settings: { ...sizes[way.value] },
        unit: settings.unit,
      }
    : null,
)
const toldBody = computed<ToldIn | null>(() => {
  if (!body.value) return null
  if (way.value === 'slats') return { ...body.value, row: told.row }
  if (way.value === 'plug') return { ...body.value, hole: told.hole, plug: told.plug }
  return { ...body.value, answers: told.answers }
})
const begun = computed(() =>
  way.value === 'slats'
    ? told.row.length > 0
    : way.value === 'plug'
      ? told.hole.length > 0 && told.plug.length > 0
      : told.answers.filter(Boolean).length > 2,
)
const LISTS: Record<Way, readonly ('row' | 'hole' | 'plug')[]> = {
  slats: ['row'],
  plug: ['hole', 'plug'],
  comb: [],
}
const lists = computed(() => LISTS[way.value])
const LIST_TITLES = {
  row: 'The row, pushed together',
  hole: 'The hole, across its flats',
  plug: 'The plug, across its flats',
}

async function tell(act: () => Promise<void>): Promise<boolean> {
  problem.value = null
  try {
    await act()
    return true
  } catch (error) {
    if (!(error instanceof Problem)) throw error
    problem.value = error
    return false
  }
}

onMounted(() =>
  tell(async () => {
    ;[rack.value, machines.value, choices.value] = await Promise.all([
      api.stocks(),
      api.machines(),
      api.choices(),
    ])
    const asked = (name: string, known: readonly { id: number }[]) =>
      [route.query[name], localStorage.getItem(`notebook ${name}`)]
        .map((wanted) => known.find(({ id }) => id === Number(wanted))?.id)
        .find((id) => id !== undefined) ??
      known[0]?.id ??
      null
    stock.value = asked('stock', rack.value)
    machine.value = asked('machine', machines.value)
  }),
)

watch(
  () => [way.value, stock.value, machine.value],
  () => {
    kept.value = practised.value = ''
    read.value = null
    if (stock.value) localStorage.setItem('notebook stock', String(stock.value))
    if (machine.value) localStorage.setItem('notebook machine', String(machine.value))
    void draw()
    void list()
  },
)

async function draw(): Promise<void> {
  if (!body.value) return
  const asked = body.value
  await tell(async () => {
    const drawn = await api.piece(asked)
    if (asked === body.value) piece.value = drawn
  })
  if (begun.value && !problem.value) await look()
}

async function list(): Promise<void> {
  if (stock.value && machine.value) entries.value = await api.notebook(machine.value, stock.value)
}

function resize(name: string, text: string): void {
  sizes[way.value][name] = text
  void draw()
}

/** Readings as the core took them, or those before if it did not. */
async function look(): Promise<void> {
  kept.value = ''
  if (!toldBody.value || !begun.value) {
    read.value = null
    problem.value = null
    return
  }
  const asked = toldBody.value
  await tell(async () => {
    read.value = null
    understood(await api.readPiece(asked))
  })
}

/** Readings are shown as they were understood, in whatever unit is shown. */
function understood(answer: PieceRead): void {
  read.value = answer
  for (const name of lists.value) {
    measured[name] = answer[name]
    told[name] = answer[name].map((mm) => `${mm} mm`)
  }
}

function take(name: 'row' | 'hole' | 'plug', texts: string[]): void {
  told[name] = texts
  void look()
}

function answer(index: number, text: string): void {
  const count = piece.value?.clearances.length ?? 0
  told.answers = Array.from({ length: count }, (_, i) => (i === index ? text : (told.answers[i] ?? '')))
  void look()
}

const practise = () =>
  tell(async () => {
    const cut = await api.practise({ ...body.value!, seed: Number(seed.value) || 0 })
    for (const name of ['row', 'hole', 'plug'] as const) {
      measured[name] = cut[name]
      told[name] = cut[name].map((mm) => `${mm} mm`)
    }
    told.answers = cut.answers
    practised.value = `Cut on practice machine ${seed.value}. Its board measures ${cut.thickness
      .map((mm) => lengthText(mm, settings.unit))
      .join(', ')} ${settings.unit}.`
    if (begun.value) understood(await api.readPiece(toldBody.value!))
  })

const keep = () =>
  tell(async () => {
    entries.value = await api.addEntry({ ...toldBody.value!, note: note.value })
    kept.value = 'It is in the notebook.'
    note.value = ''
  })

const strike = (entry: Entry) =>
  tell(async () => {
    await api.strikeEntry(entry.id, !entry.valid)
    await list()
  })

const download = (format: FileFormat) =>
  tell(async () => {
    save(await api.pieceFile({ ...body.value!, format }), piece.value!.file_names[format]!)
  })

const settingProblem = (name: string) => (problem.value?.field === name ? problem.value : null)
const listProblem = (name: string) =>
  problem.value && (problem.value.field === name || problem.value.field.startsWith(`${name}[`))
    ? problem.value
    : null
const elsewhere = computed(() => {
  const field = problem.value?.field ?? ''
  const placed = [...(piece.value?.settings.map(({ name }) => name) ?? []), 'row', 'hole', 'plug', 'answers']
  return problem.value && !placed.includes(field.replace(/\[\d+\]$/, '')) ? problem.value : null
})
const signed = (mm: number) => `${mm > 0 ? '+' : ''}${lengthText(mm, settings.unit, 3)}`
</script>

<template>
  <WorkshopLayout title="Kerf notebook" :about="piece?.about ?? ''">
    <template #list>
      <div class="chosen">
        <label class="second">
          Board
          <select v-model="stock" class="boxed">
            <option v-for="one in rack" :key="one.id" :value="one.id">
              {{ one.document.name }}, {{ shortText(one.thickness, settings.unit) }}
            </option>
          </select>
        </label>
        <label class="second">
          Machine
          <select v-model="machine" class="boxed">
            <option v-for="one in machines" :key="one.id" :value="one.id">{{ one.document.name }}</option>
          </select>
        </label>
      </div>
      <button
        v-for="([title, what], name) in WAYS"
        :key="name"
        class="way"
        :aria-pressed="way === name"
        @click="way = name"
      >
        <b>{{ title }}</b>
        <span class="small second">{{ what }}</span>
      </button>
    </template>

    <p v-if="!rack.length || !machines.length" class="second">
      A test piece wants a board and a machine: add them to the
      <RouterLink :to="{ name: 'rack' }">stock rack</RouterLink> and the
      <RouterLink :to="{ name: 'machines' }">machines</RouterLink> first.
    </p>
    <template v-if="piece">
      <PieceDrawing class="piece" :piece="piece" />
      <div class="sizes">
        <TextField
          v-for="setting in piece.settings"
          :key="`${way}-${setting.name}`"
          :field="setting.name"
          :label="setting.kind === 'length' ? `${setting.title}, ${settings.unit}` : setting.title"
          :text="
            sizes[way][setting.name] ??
            (setting.kind === 'length' ? shortText(Number(setting.text), settings.unit) : setting.text)
          "
          :problem="settingProblem(setting.name)"
          @commit="resize(setting.name, $event)"
        />
      </div>
      <div class="hand">
        <span class="small second">{{ (piece.area / 100).toFixed(0) }} cm² of the board</span>
        <button class="plain" @click="download('svg')">SVG</button>
        <button class="plain" @click="download('dxf')">DXF</button>
        <button class="plain" @click="download('dxf-r12')">DXF R12</button>
        <button class="plain" @click="download('pdf')">PDF</button>
        <span class="practice">
          <label class="small second"
            >or cut it on practice machine
            <input v-model="seed" class="boxed figure" aria-label="number of the practice machine"
          /></label>
          <button class="plain" @click="practise">practise</button>
        </span>
      </div>
      <ol class="steps">
        <li v-for="step in piece.instructions" :key="step">{{ step }}</li>
      </ol>
      <p v-if="practised" class="practised small" role="status">{{ practised }}</p>
      <div v-if="way === 'comb'" class="comb">
        <div v-for="(clearance, i) in piece.clearances" :key="i" class="pair">
          <b class="figure">{{ i + 1 }}</b>
          <span class="figure second small">{{ signed(clearance) }}</span>
          <select
            class="boxed"
            :value="told.answers[i] ?? ''"
            :data-field="`answers[${i}]`"
            :aria-label="`pair ${i + 1}`"
            :aria-invalid="problem?.field === `answers[${i}]` ? 'true' : undefined"
            @change="answer(i, ($event.target as HTMLSelectElement).value)"
          >
            <option value="">not tried</option>
            <option v-for="feel in choices?.feels" :key="feel">{{ feel }}</option>
          </select>
        </div>
        <ProblemNote v-if="listProblem('answers')" class="all" :problem="listProblem('answers')!" />
      </div>
      <div class="lists">
        <section v-for="(title, name) in LIST_TITLES" v-show="lists.includes(name)" :key="name">
          <h2>{{ title }}, in {{ settings.unit }}</h2>
          <ReadingsList
            :values="measured[name]"
            :problem="listProblem(name)"
            :field="name"
            @commit="take(name, $event)"
            @clear="look"
          />
        </section>
      </div>
    </template>
    <ProblemNote v-if="elsewhere" :problem="elsewhere" />

    <template #ledger>
      <section v-if="read" class="result" aria-live="polite">
        <template v-if="read.kerf !== null">
          <h2>Kerf</h2>
          <p class="figure big">{{ lengthText(read.kerf!, settings.unit, 4) }} {{ settings.unit }}</p>
          <p class="figure">± {{ lengthText(read.within, settings.unit, 4) }} in 95 of 100 cases</p>
          <p class="small second">{{ inUnit(read.because, settings.unit) }}</p>
        </template>
        <template v-else-if="read.fits">
          <h2>Fits</h2>
          <dl class="figure">
            <template v-for="name in ['press', 'snug', 'slide', 'free'] as const" :key="name">
              <dt>{{ name }}</dt>
              <dd>{{ signed(read.fits[name]) }}</dd>
            </template>
          </dl>
          <p class="small second">
            each limit ± {{ lengthText(read.within, settings.unit, 3) }}: {{ read.because }}
          </p>
        </template>
        <p v-for="one in read.notes" :key="one" class="small ochre">{{ one }}</p>
        <label class="second small">
          Settings, or a note
          <input v-model="note" class="boxed" placeholder="62 %, 12 mm/s, lens cleaned" />
        </label>
        <button class="strong" @click="keep">Keep it in the notebook</button>
      </section>
      <p v-if="kept" class="kept small" role="status">{{ kept }}</p>
      <h2>Written so far</h2>
      <EntryList :entries="entries" @strike="strike" />
    </template>
  </WorkshopLayout>
</template>

<style scoped>
.chosen {
  display: grid;
  gap: 8px;
  padding: 0 16px 14px;
}
.way {
  display: grid;
  width: 100%;
  padding: 8px 16px;
  border-radius: 0;
  border-width: 1px 0;
}
.way:hover {
  background: color-mix(in srgb, var(--panel) 60%, transparent);
}
.way[aria-pressed='true'] {
  background: var(--panel);
  border-color: var(--line);
  box-shadow: inset 3px 0 var(--deep);
}
.way b {
  font-weight: 600;
}
.piece {
  height: 250px;
  border: 1px solid var(--line);
}
.sizes {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 12px;
  margin: 12px 0;
}
.sizes > * {
  width: 150px;
}
.hand {
  display: flex;
  align-items: center;
  gap: 8px;
}
.practice {
  display: flex;
  align-items: center;
  gap: 8px;
  margin-left: auto;
}
.practice input {
  display: inline-block;
  width: 64px;
}
.steps {
  margin: 12px 0;
  padding-left: 20px;
  list-style: decimal;
}
.practised,
.kept {
  padding: 4px 10px;
  background: var(--deep-wash);
  color: var(--deep);
}
.lists {
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 280px));
  gap: 22px;
  margin-top: 10px;
}
.comb {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(210px, 1fr));
  gap: 4px 22px;
}
.pair {
  display: grid;
  grid-template-columns: 22px 58px 1fr;
  align-items: center;
  gap: 6px;
}
.all {
  grid-column: 1 / -1;
}
.result {
  display: grid;
  justify-items: start;
  gap: 6px;
  margin: -12px -18px 0;
  padding: 14px 18px;
  background: var(--deep-wash);
  border-left: 3px solid var(--deep);
}
.result label {
  width: 100%;
}
.big {
  font-size: 26px;
}
dl {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 2px 16px;
  margin: 0;
}
dd {
  margin: 0;
  text-align: right;
}
dt {
  font-family: var(--words);
}
a {
  color: var(--deep);
}
</style>
