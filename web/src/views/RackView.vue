<script setup lang="ts">
import { computed, onMounted, ref, shallowRef, watch } from 'vue'

import {
  api,
  type Choices,
  type Measurement,
  type Readings,
  type Stock,
  type StockChange,
  type StockIn,
} from '../api/client'
import BoardLedger from '../components/BoardLedger.vue'
import ArchiveButton from '../components/ArchiveButton.vue'
import ArchivedList from '../components/ArchivedList.vue'
import DotStrip from '../components/DotStrip.vue'
import MeasureAnew from '../components/MeasureAnew.vue'
import NewStock from '../components/NewStock.vue'
import ProblemNote from '../components/ProblemNote.vue'
import RackSheets from '../components/RackSheets.vue'
import ThicknessStrip from '../components/ThicknessStrip.vue'
import WorkshopLayout from '../components/WorkshopLayout.vue'
import { dateText } from '../rack'
import { useShelf } from '../composables/useShelf'
import { useSettings } from '../stores/settings'
import { inUnit, lengthText, shortText } from '../units'

/** The stock rack: every board as it measures now and as it measured before, and what of it is at hand. */
const settings = useSettings()
const shelf = useShelf<Stock, StockIn, StockChange>('rack', {
  list: api.stocks,
  add: api.addStock,
  change: api.changeStock,
  remove: api.removeStock,
  restore: api.restoreStock,
  archived: api.archivedStocks,
})
const { all: rack, one: stock, archived, adding, record } = shelf
const choices = shallowRef<Choices | null>(null)
const history = shallowRef<Measurement[]>([])
const measuring = ref(false)
const looked = shallowRef<Readings | null>(null)
const length = (mm: number) => lengthText(mm, settings.unit)
const short = (mm: number) => shortText(mm, settings.unit)

onMounted(async () => (choices.value = await api.choices()))
watch(
  () => stock.value?.id,
  () => (measuring.value = false),
)
watch(
  [() => stock.value?.id, () => stock.value?.measurements],
  async ([id]) => (history.value = id ? await api.measurements(id) : []),
  { immediate: true },
)

/** Measuring is not taken back: the history keeps what was before. */
async function keepReadings(readings: string[]): Promise<void> {
  await api.changeStock(stock.value!.id, { readings })
  await shelf.load()
}

/** The readings that are being typed, else the newest kept. */
const shown = computed(() => (measuring.value ? looked.value : stock.value?.readings))
const range = computed<[number, number]>(() => {
  const all = [...history.value.flatMap(({ readings }) => readings.values), ...(shown.value?.values ?? [])]
  return [Math.min(...all), Math.max(...all)]
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
          <span class="small second">{{
            one.readings.values.length > 1 ? `± ${length(one.readings.spread / 2)}` : 'one reading'
          }}</span>
          <DotStrip
            :readings="one.readings.values"
            :mean="one.thickness"
            :width="70"
            :outliers="one.readings.outliers"
          />
        </span>
        <span v-if="one.readings.warnings.length" class="small ochre">wants a look</span>
      </RouterLink>
      <button class="link add" @click="adding = true">Add a board</button>
      <ArchivedList
        :rows="archived.map(({ id, document }) => ({ id, name: document.name }))"
        @restore="shelf.restore"
      />
    </template>
    <template #actions>
      <button v-if="record.canUndo.value" class="plain" @click="record.undo">Undo</button>
      <button v-if="record.canRedo.value" class="plain" @click="record.redo">Redo</button>
      <button v-if="stock && !measuring" class="strong" @click="((looked = null), (measuring = true))">
        Measure again
      </button>
    </template>
    <p v-if="rack?.length === 0" class="second">
      No board is on the rack. Take one, a caliper, and measure it in five places: the label is never right.
    </p>
    <template v-if="stock">
      <section v-if="shown" class="measured">
        <div>
          <span class="figure mean">{{ lengthText(shown.mean, settings.unit, 3) }}</span>
          <span class="second"> {{ settings.unit }}, mean of {{ shown.values.length }}</span>
        </div>
        <ThicknessStrip :readings="shown" :nominal="stock.document.nominal" :width="640" />
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
      <MeasureAnew v-if="measuring" :keep="keepReadings" @look="looked = $event" @close="measuring = false" />

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
        <BoardLedger
          v-if="choices"
          :stock="stock"
          :choices="choices"
          :change="shelf.change"
          :problem-at="record.problemAt"
        />
        <ArchiveButton what="board" :uses="() => api.jobsOfStock(stock!.id)" @archive="shelf.archive" />
        <ProblemNote
          v-if="record.problem.value && !record.problem.value.field"
          :problem="record.problem.value"
        />
      </template>
    </template>
  </WorkshopLayout>
  <NewStock v-if="adding" :kinds="choices?.stock_kinds ?? []" :save="shelf.add" @close="adding = false" />
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
.history li {
  display: grid;
  grid-template-columns: 90px 60px 310px 70px auto;
  align-items: center;
  gap: 8px;
  padding: 3px 0;
  border-top: 1px solid var(--line);
}
</style>
