<script setup lang="ts">
import { computed, onMounted, ref, shallowRef, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'

import { api, type Choices, type FileFormat, type Machine, type Stock, type Way } from '../api/client'
import CombAnswers from '../components/CombAnswers.vue'
import EntryList from '../components/EntryList.vue'
import PieceDrawing from '../components/PieceDrawing.vue'
import PieceResult from '../components/PieceResult.vue'
import ProblemNote from '../components/ProblemNote.vue'
import ReadingsList from '../components/ReadingsList.vue'
import TextField from '../components/TextField.vue'
import WorkshopLayout from '../components/WorkshopLayout.vue'
import { READINGS_OF, useTestPiece } from '../composables/useTestPiece'
import { useSettings } from '../stores/settings'
import { editText, inUnit, lengthText, shortText } from '../units'

/** The kerf notebook: a test piece for a board and a machine, what it tells, and every page written so far. */
const settings = useSettings()
const route = useRoute()
const router = useRouter()
const rack = shallowRef<Stock[] | null>(null)
const machines = shallowRef<Machine[] | null>(null)
const choices = shallowRef<Choices | null>(null)
const seed = ref('1')

const WAYS: Record<Way, [string, string]> = {
  slats: ['Row of slats', 'the kerf, most exactly'],
  plug: ['Plug and hole', 'the kerf, with one cut'],
  comb: ['Fit comb', 'how tight each fit is'],
}
const FORMATS: [FileFormat, string][] = [['svg', 'SVG'], ['dxf', 'DXF'], ['dxf-r12', 'DXF R12'], ['pdf', 'PDF']] // prettier-ignore
const LIST_TITLES = {
  row: 'The row, pushed together',
  hole: 'The hole, across its flats',
  plug: 'The plug, across its flats',
}

/** Board, machine and way are the address's; what it does not name is what was looked at last. */
const asked = computed(() => {
  const stock = chosen('stock', rack.value)
  const machine = chosen('machine', machines.value)
  const way = String(route.query['way'] ?? 'slats') as Way
  return stock && machine ? { stock, machine, way: way in WAYS ? way : 'slats' } : null
})

function chosen(name: string, known: readonly { id: number }[] | null): number | null {
  const wanted = [route.query[name], localStorage.getItem(`notebook ${name}`)].map(Number)
  return (wanted.find((id) => known?.some((one) => one.id === id)) || known?.[0]?.id) ?? null
}

function choose(changes: Record<string, string>): void {
  void router.replace({ query: { ...asked.value, ...route.query, ...changes } })
}

watch(asked, (now) => {
  if (!now) return
  localStorage.setItem('notebook stock', String(now.stock))
  localStorage.setItem('notebook machine', String(now.machine))
})

const test = useTestPiece(() => asked.value)
const { draft, piece, read, truth, entries, measured, said, elsewhere } = test

/** What the machine was last set to for this board. */
const lastSet = ref('')
watch([() => asked.value?.machine, () => asked.value?.stock], async ([machine, stock]) => {
  const known = machine && stock ? await api.settings(machine, stock, 'cut') : []
  lastSet.value = known.find((one) => one.stock === stockName(stock))?.said ?? ''
})
const stockName = (id: number | undefined) => rack.value?.find((one) => one.id === id)?.document.name

onMounted(async () => {
  ;[rack.value, machines.value, choices.value] = await Promise.all([
    api.stocks(),
    api.machines(),
    api.choices(),
  ])
})

/** What was typed, in the unit shown now; else the piece's own. */
function sizeText({ name, kind, text }: { name: string; kind: string; text: string }): string {
  const typed = draft.value.sizes[name]
  if (typed) return editText(typed.text, typed.unit, settings.unit)
  return kind === 'length' ? shortText(Number(text), settings.unit) : text
}
</script>

<template>
  <WorkshopLayout title="Kerf notebook" :about="piece?.about ?? ''">
    <template #list>
      <div class="chosen">
        <label class="second">
          Board
          <select
            class="boxed"
            :value="asked?.stock"
            @change="choose({ stock: ($event.target as HTMLSelectElement).value })"
          >
            <option v-for="one in rack ?? []" :key="one.id" :value="one.id">
              {{ one.document.name }}, {{ shortText(one.thickness, settings.unit) }}
            </option>
          </select>
        </label>
        <label class="second">
          Machine
          <select
            class="boxed"
            :value="asked?.machine"
            @change="choose({ machine: ($event.target as HTMLSelectElement).value })"
          >
            <option v-for="one in machines ?? []" :key="one.id" :value="one.id">
              {{ one.document.name }}
            </option>
          </select>
        </label>
      </div>
      <button
        v-for="([title, what], name) in WAYS"
        :key="name"
        class="way"
        :aria-pressed="asked?.way === name"
        @click="choose({ way: name })"
      >
        <b>{{ title }}</b>
        <span class="small second">{{ what }}</span>
      </button>
    </template>

    <p v-if="rack && machines && !asked" class="second">
      A test piece wants a board and a machine: add them to the
      <RouterLink :to="{ name: 'rack' }">stock rack</RouterLink> and the
      <RouterLink :to="{ name: 'machines' }">machines</RouterLink> first.
    </p>
    <template v-if="piece && asked">
      <PieceDrawing class="piece" :piece="piece" />
      <div class="sizes">
        <TextField
          v-for="setting in piece.settings"
          :key="`${asked.way}-${setting.name}`"
          :field="setting.name"
          :label="setting.kind === 'length' ? `${setting.title}, ${settings.unit}` : setting.title"
          :text="sizeText(setting)"
          :problem="test.problemAt(setting.name)"
          @commit="test.resize(setting.name, $event)"
        />
      </div>
      <div class="hand">
        <span class="small second">takes {{ (piece.area / 100).toFixed(0) }} cm² of the board</span>
        <button v-for="[format, name] in FORMATS" :key="format" class="plain" @click="test.download(format)">
          {{ name }}
        </button>
        <form class="practice" @submit.prevent="test.practise(Number(seed) || 0)">
          <label class="small second">
            or cut it on practice machine
            <input v-model="seed" class="boxed figure" inputmode="numeric" />
          </label>
          <button class="plain">practise</button>
        </form>
      </div>
      <ol class="steps">
        <li v-for="step in piece.instructions" :key="step">{{ step }}</li>
      </ol>
      <p v-if="piece.kerf_note" class="note small" :class="piece.kerf_known ? 'second' : 'ochre'">
        {{ inUnit(piece.kerf_note, settings.unit) }}
      </p>
      <p v-if="draft.practice !== null" class="practised small" role="status">
        Practice machine {{ draft.practice.seed }} cut it<template v-if="draft.practice.kerf !== null"
          >, for a kerf of
          <span class="figure">{{ lengthText(draft.practice.kerf, settings.unit, 4) }}</span> that its slats
          told first</template
        >; this is what a caliper and two hands tell.
      </p>
      <CombAnswers
        v-if="asked.way === 'comb'"
        :clearances="piece.clearances"
        :feels="choices?.feels ?? []"
        :answers="draft.answers"
        :problem="test.problemAt('answers')"
        @answer="(index, feel) => test.answer(index, feel)"
      />
      <div class="lists">
        <section v-for="name in READINGS_OF[asked.way]" :key="name">
          <h2>{{ LIST_TITLES[name] }}, in {{ settings.unit }}</h2>
          <ReadingsList
            :key="`${asked.stock}/${asked.machine}`"
            :values="measured[name]"
            :typed="draft[name]"
            :problem="test.problemAt(name)"
            :field="name"
            @commit="test.measure(name, $event)"
            @clear="test.measure(name, draft[name])"
          />
        </section>
      </div>
    </template>
    <ProblemNote v-if="elsewhere" :problem="elsewhere" />

    <template #ledger>
      <PieceResult
        v-if="read"
        v-model:note="draft.note"
        :read="read"
        :feels="choices?.feels ?? []"
        :practice="draft.practice?.seed ?? null"
        :truth="truth"
        :last-set="lastSet"
        @keep="test.keep"
        @reveal="test.reveal"
        @clear="test.clear"
      />
      <p v-if="said" class="practised small" role="status">{{ said }}</p>
      <h2>Written so far</h2>
      <EntryList :entries="entries" @strike="test.strike" />
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
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(150px, 1fr));
  align-items: start;
  gap: 8px 12px;
  margin: 12px 0;
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
  margin-left: 4px;
}
.steps {
  margin: 12px 0;
  padding-left: 20px;
  list-style: decimal;
}
.note {
  margin: -6px 0 12px 20px;
}
.practised {
  margin-bottom: 8px;
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
a {
  color: var(--deep);
}
</style>
