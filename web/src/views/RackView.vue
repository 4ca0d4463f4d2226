<script setup lang="ts">
import { computed, onMounted, ref, shallowRef, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'

import { api, type Choices, type Measurement, type Readings, type Stock, type StockIn } from '../api/client'
import DotStrip from '../components/DotStrip.vue'
import NewStock from '../components/NewStock.vue'
import ProblemNote from '../components/ProblemNote.vue'
import RackSheets from '../components/RackSheets.vue'
import ReadingsList from '../components/ReadingsList.vue'
import RowsEditor from '../components/RowsEditor.vue'
import TextField from '../components/TextField.vue'
import WorkshopLayout from '../components/WorkshopLayout.vue'
import { cornersText, dateText, readCorners } from '../rack'
import { useRecord } from '../composables/useRecord'
import { useShortcuts } from '../composables/useShortcuts'
import { useSettings } from '../stores/settings'
import { inUnit, lengthText, shortText } from '../units'

/** The stock rack: every board as it measures now and as it measured before, and what of it is at hand. */
const settings = useSettings()
const route = useRoute()
const router = useRouter()
const rack = shallowRef<Stock[] | null>(null)
const choices = shallowRef<Choices | null>(null)
const history = shallowRef<Measurement[]>([])
const removed = shallowRef<Stock | null>(null)
const adding = ref(false)
const sizeDraft = ref<Record<string, string> | null>(null)
const cutDraft = ref<Record<string, string> | null>(null)

const stock = computed(
  () => rack.value?.find(({ id }) => id === Number(route.params['id'])) ?? rack.value?.[0],
)
const length = (mm: number) => lengthText(mm, settings.unit)
const short = (mm: number) => shortText(mm, settings.unit)

const record = useRecord<StockIn>(async (id, document) => {
  await api.changeStock(id, document)
  await load()
})
useShortcuts({ undo: () => void record.undo(), redo: () => undefined })

async function load(): Promise<void> {
  rack.value = await api.stocks()
  await look()
}

async function look(): Promise<void> {
  history.value = stock.value ? await api.measurements(stock.value.id) : []
}

onMounted(async () => {
  choices.value = await api.choices()
  await record.tell(load)
})
watch(
  () => stock.value?.id,
  () => {
    measuring.value = null
    record.problem.value = null
    sizeDraft.value = cutDraft.value = null
    void look()
  },
)

/** Numbers stay mm whatever unit is shown; only what was typed counts in it. */
function change(changes: Partial<StockIn>): Promise<boolean> {
  const { id, document } = stock.value!
  return record.edit(id, { ...document, unit: settings.unit }, changes)
}

// Measuring anew: readings are looked at as they come, and kept when they are good.
const measuring = shallowRef<{ typed: string[]; read: Readings | null } | null>(null)

async function read(typed: string[]): Promise<void> {
  measuring.value = { typed, read: measuring.value?.read ?? null }
  await record.tell(async () => {
    const looked = typed.length ? await api.lookAtReadings(typed, settings.unit) : null
    measuring.value = { typed, read: looked }
  })
}

/** Measuring is not taken back: the history keeps what was before. */
async function keepReadings(): Promise<void> {
  const { id, document } = stock.value!
  const readings = measuring.value!.typed
  const done = await record.tell(async () => {
    await api.changeStock(id, { ...document, unit: settings.unit, readings })
    await load()
  })
  if (done) measuring.value = null
}

const shown = computed(() => measuring.value?.read ?? (measuring.value ? null : stock.value?.readings))
const range = computed<[number, number]>(() => {
  const all = [...history.value.flatMap(({ readings }) => readings.values), ...(shown.value?.values ?? [])]
  return [Math.min(...all), Math.max(...all)]
})

// Sheets and off-cuts
const sizes = computed(() => [
  { width: short(stock.value!.document.sheet_width), height: short(stock.value!.document.sheet_height), count: String(stock.value!.document.sheets ?? '') },
  ...stock.value!.document.other_sheets.map(({ width, height, count }) => ({ width: short(width), height: short(height), count: String(count ?? '') })),
]) // prettier-ignore
const offcuts = computed(() =>
  stock.value!.document.offcuts.map(({ name, outline }) => ({
    name,
    outline: cornersText(outline, settings.unit),
  })),
)

async function changeSizes(rows: Record<string, string>[]): Promise<void> {
  const [first, ...others] = rows
  if (!first) return
  const done = await change({
    sheet_width: first['width']!,
    sheet_height: first['height']!,
    sheets: first['count']?.trim() || null,
    other_sheets: others.map(({ width, height, count }) => ({
      width: width!,
      height: height!,
      count: count?.trim() || null,
    })),
  })
  if (done) sizeDraft.value = null
}

async function changeOffcuts(rows: Record<string, string>[]): Promise<void> {
  const before = stock.value!.document.offcuts
  const done = await change({
    offcuts: rows.map(({ name, outline }) => ({
      name: name!,
      outline: readCorners(outline!),
      note: before.find((one) => one.name === name)?.note ?? '',
    })),
  })
  if (done) cutDraft.value = null
}

/** Sizes have rows of their own here: the first is the stock's, the others a list. */
function sizeProblem(field: string) {
  const index = Number(/\[(\d+)\]/.exec(field)?.[1])
  if (index) return record.problemAt(`other_sheets[${index - 1}]`)
  return record.problemAt('sheet_width') ?? record.problemAt('sheet_height') ?? record.problemAt('sheets')
}

async function add(body: StockIn): Promise<void> {
  const added = await api.addStock(body)
  adding.value = false
  await load()
  await router.push({ name: 'rack', params: { id: added.id } })
}

const putAway = () =>
  record.tell(async () => {
    removed.value = stock.value!
    await api.removeStock(removed.value.id)
    await router.push({ name: 'rack' })
    await load()
  })

const bringBack = () =>
  record.tell(async () => {
    const { id } = await api.restoreStock(removed.value!.id)
    removed.value = null
    await load()
    await router.push({ name: 'rack', params: { id } })
  })
</script>

<template>
  <WorkshopLayout
    title="Stock rack"
    :about="stock ? `${stock.document.name}, sold as ${short(stock.document.nominal)} ${settings.unit}` : ''"
  >
    <template #list>
      <RouterLink
        v-for="one in rack ?? []"
        :key="one.id"
        :to="{ name: 'rack', params: { id: one.id } }"
        :aria-current="one.id === stock?.id ? 'page' : undefined"
      >
        <b>{{ one.document.name }}</b>
        <span class="line">
          <span class="figure">{{ length(one.thickness) }}</span>
          <span class="small second">± {{ length(one.readings.spread / 2) }}</span>
          <DotStrip
            :readings="one.readings.values"
            :mean="one.thickness"
            :width="70"
            :outliers="one.readings.outliers"
          />
        </span>
        <span v-if="one.readings.warnings.length" class="small ochre">wants a look</span>
      </RouterLink>
      <button class="link add" @click="adding = true">add a board</button>
    </template>
    <template #actions>
      <button v-if="record.canUndo.value" class="plain" @click="record.undo">undo</button>
      <button v-if="stock && !measuring" class="strong" @click="measuring = { typed: [], read: null }">
        Measure anew
      </button>
    </template>

    <p v-if="removed" class="removed" role="status">
      {{ removed.document.name }} is put away. <button class="link" @click="bringBack">bring it back</button>
    </p>
    <p v-if="rack?.length === 0" class="second">
      No board is on the rack. Take one, a caliper, and measure it in five places: the label is never right.
    </p>
    <template v-if="stock">
      <section v-if="shown" class="measured">
        <div>
          <span class="figure mean">{{ lengthText(shown.mean, settings.unit, 3) }}</span>
          <span class="second"> {{ settings.unit }}, mean of {{ shown.values.length }}</span>
        </div>
        <DotStrip
          :readings="shown.values"
          :mean="shown.mean"
          :width="420"
          :height="44"
          :outliers="shown.outliers"
          :range="range"
        />
        <dl class="figure">
          <div>
            <dt>thin</dt>
            <dd>{{ length(shown.thin) }}</dd>
          </div>
          <div>
            <dt>thick</dt>
            <dd>{{ length(shown.thick) }}</dd>
          </div>
          <div>
            <dt>spread</dt>
            <dd>{{ length(shown.spread) }}</dd>
          </div>
          <div v-if="shown.deviation !== null">
            <dt>deviation</dt>
            <dd>{{ lengthText(shown.deviation, settings.unit, 3) }}</dd>
          </div>
        </dl>
        <p v-for="warning in shown.warnings" :key="warning" class="warning small">
          {{ inUnit(warning, settings.unit) }}
        </p>
      </section>
      <section v-if="measuring" class="anew">
        <h2>Measured now, in {{ settings.unit }}</h2>
        <p class="small second">
          Five places, the edges too, jaws flat on the board. Enter goes on; a list may be pasted.
        </p>
        <ReadingsList
          :values="measuring.read?.values ?? []"
          :problem="record.problem.value"
          @commit="read"
          @clear="record.problem.value = null"
        />
        <button class="strong" :disabled="!measuring.read || !!record.problem.value" @click="keepReadings">
          Keep this measurement
        </button>
        <button class="link" @click="((measuring = null), (record.problem.value = null))">leave it</button>
      </section>

      <h2>Measured so far</h2>
      <ul class="history">
        <li v-for="one in history" :key="one.id">
          <span class="small">{{ dateText(one.taken) }}</span>
          <span class="small second">{{ one.by }}</span>
          <DotStrip
            :readings="one.readings.values"
            :mean="one.readings.mean"
            :width="300"
            :range="range"
            :outliers="one.readings.outliers"
          />
          <span class="figure">{{ lengthText(one.readings.mean, settings.unit, 3) }}</span>
          <span class="small second figure">
            {{ length(one.readings.thin) }} … {{ length(one.readings.thick) }}
          </span>
        </li>
      </ul>
      <h2>At hand</h2>
      <RackSheets :stock="stock.document" />
    </template>

    <template #ledger>
      <template v-if="stock">
        <h2>The board</h2>
        <div class="two">
          <TextField
            class="wide"
            field="name"
            label="Name"
            words
            :text="stock.document.name"
            :problem="record.problemAt('name')"
            @commit="change({ name: $event })"
          />
          <label>
            Kind
            <select
              class="boxed"
              :value="stock.document.kind"
              @change="change({ kind: ($event.target as HTMLSelectElement).value })"
            >
              <option v-for="kind in choices?.stock_kinds" :key="kind">{{ kind }}</option>
            </select>
          </label>
          <TextField
            field="nominal"
            :label="`Sold as, ${settings.unit}`"
            :text="short(stock.document.nominal)"
            :problem="record.problemAt('nominal')"
            @commit="change({ nominal: $event })"
          />
          <label>
            Grain or corrugation
            <select
              class="boxed"
              :value="stock.document.direction"
              @change="change({ direction: ($event.target as HTMLSelectElement).value })"
            >
              <option v-for="direction in choices?.directions" :key="direction">{{ direction }}</option>
            </select>
          </label>
          <TextField
            field="price"
            label="Price of a sheet"
            :text="stock.document.price === null ? '' : String(stock.document.price)"
            :problem="record.problemAt('price')"
            @commit="change({ price: $event })"
          />
          <TextField
            class="wide"
            field="note"
            label="Note"
            words
            placeholder="tape under it, glue that burns"
            :text="stock.document.note"
            :problem="record.problemAt('note')"
            @commit="change({ note: $event })"
          />
        </div>
        <h2>Sheets at hand, in {{ settings.unit }}</h2>
        <RowsEditor
          v-model:draft="sizeDraft"
          :columns="[
            { name: 'width', label: 'width' },
            { name: 'height', label: 'height' },
            { name: 'count', label: 'how many' },
          ]"
          :rows="sizes"
          field="sizes"
          add="add another size"
          :problem-at="sizeProblem"
          @commit="changeSizes"
        />
        <p class="small second">Jobs start on the first. Leave “how many” empty for as many as it takes.</p>
        <h2>Off-cuts</h2>
        <RowsEditor
          v-model:draft="cutDraft"
          :columns="[
            { name: 'name', label: 'name', words: true },
            { name: 'outline', label: 'corners, or width × height' },
          ]"
          :rows="offcuts"
          field="offcuts"
          add="add an off-cut"
          :problem-at="record.problemAt"
          @commit="changeOffcuts"
        />
        <p class="small second">
          Corners as x y, with semicolons: 0 0; 380 0; 380 90; 140 90; 140 260; 0 260
        </p>
        <p class="away">
          <button class="link" @click="putAway">put this board away</button>
        </p>
        <ProblemNote
          v-if="record.problem.value && !record.problem.value.field"
          :problem="record.problem.value"
        />
      </template>
    </template>
  </WorkshopLayout>
  <NewStock v-if="adding" :kinds="choices?.stock_kinds ?? []" :save="add" @close="adding = false" />
</template>

<style scoped>
.line {
  display: flex;
  align-items: center;
  gap: 6px;
}
.line svg {
  margin-left: auto;
}
.add {
  margin: 8px 12px;
}
.removed,
.warning {
  margin-bottom: 8px;
  padding: 5px 10px;
  background: var(--ochre-wash);
}
.measured {
  padding: 12px 16px;
  background: var(--panel);
  border: 1px solid var(--line);
}
.mean {
  font-size: 26px;
}
dl {
  display: flex;
  gap: 26px;
  margin: 4px 0 8px;
}
dl div {
  display: grid;
}
dt {
  color: var(--second);
  font: 12.5px var(--words);
}
dd {
  margin: 0;
}
.anew {
  display: grid;
  justify-items: start;
  gap: 8px;
  margin-top: 12px;
  padding: 12px 16px;
  border: 1px solid var(--ink);
  border-top: 3px solid var(--deep);
  background: var(--panel);
}
.anew h2 {
  margin: 0;
}
.history li {
  display: grid;
  grid-template-columns: 90px 60px 310px 70px auto;
  align-items: center;
  gap: 8px;
  padding: 3px 0;
  border-top: 1px solid var(--line);
}
.away {
  margin-top: 18px;
}
</style>
