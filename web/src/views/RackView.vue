<script setup lang="ts">
import { computed, onMounted, ref, shallowRef, watch } from 'vue'

import {
  api,
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
import { useChoices } from '../stores/choices'
import { useShelf } from '../composables/useShelf'
import { useSay } from '../composables/useSay'

/** The stock rack: every board as it measures now and as it measured before, and what of it is at hand. */
const say = useSay()
const shelf = useShelf<Stock, StockIn, StockChange>('rack', {
  list: api.stocks,
  add: api.addStock,
  change: api.changeStock,
  remove: api.removeStock,
  restore: api.restoreStock,
  archived: api.archivedStocks,
})
const { all: rack, one: stock, archived, adding, record } = shelf
const choices = useChoices()
const history = shallowRef<Measurement[]>([])
const measuring = ref(false)
const looked = shallowRef<Readings | null>(null)
const length = (mm: number) => say.length(mm)
const short = (mm: number) => say.short(mm)

onMounted(choices.load)
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
const restoring = (id: number) => () => shelf.restore(id)
</script>

<template>
  <WorkshopLayout
    title="Stock rack"
    :about="stock ? `${stock.document.name}, nominal ${short(stock.document.nominal)} ${say.unit}` : ''"
    :loading="shelf.loading.value"
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
        <span v-if="one.readings.warnings.length" class="small ochre">Check the readings</span>
      </RouterLink>
      <ElButton v-if="rack" class="add" size="small" @click="adding = true">Add a board</ElButton>
      <ArchivedList
        class="add"
        what="boards"
        :rows="archived.map(({ id, document }) => ({ id, name: document.name }))"
        @restore="shelf.restore"
      />
    </template>
    <template #actions>
      <ElButton size="small" v-if="record.canUndo.value" @click="record.undo">Undo</ElButton>
      <ElButton size="small" v-if="record.canRedo.value" @click="record.redo">Redo</ElButton>
      <RouterLink v-if="stock && !measuring" :to="{ name: 'at-the-rack', params: { id: stock.id } }"
        >Measure by thumb</RouterLink
      >
      <ElButton type="primary" v-if="stock && !measuring" @click="((looked = null), (measuring = true))">
        Measure again
      </ElButton>
    </template>
    <p v-if="rack?.length === 0" class="second">
      No boards yet. Add one: measure it with a caliper in five places, for its nominal thickness is seldom
      right.
    </p>
    <template v-if="stock">
      <section v-if="shown" class="measured">
        <div>
          <span class="figure mean">{{ say.length(shown.mean, 3) }}</span>
          <span class="second"> {{ say.unit }}, mean of {{ shown.values.length }}</span>
        </div>
        <ThicknessStrip :readings="shown" :nominal="stock.document.nominal" :width="560" />
        <dl class="figure">
          <div>
            <dt>Thin</dt>
            <dd>{{ length(shown.thin) }}</dd>
          </div>
          <div>
            <dt>Thick</dt>
            <dd>{{ length(shown.thick) }}</dd>
          </div>
          <div>
            <dt>Spread</dt>
            <dd>{{ length(shown.spread) }}</dd>
          </div>
          <div v-if="shown.deviation !== null">
            <dt>Deviation</dt>
            <dd>{{ say.length(shown.deviation, 3) }}</dd>
          </div>
        </dl>
        <p v-for="warning in shown.warnings" :key="warning" class="warning small">
          {{ say.sentence(warning) }}
        </p>
      </section>
      <MeasureAnew v-if="measuring" :keep="keepReadings" @look="looked = $event" @close="measuring = false" />

      <h2>Measurements</h2>
      <ul class="history">
        <li v-for="one in history" :key="one.id">
          <span class="small">{{ say.date(one.taken) }}</span>
          <span class="small second">{{ one.by }}</span>
          <DotStrip
            :readings="one.readings.values"
            :mean="one.readings.mean"
            :width="300"
            :range="range"
            :outliers="one.readings.outliers"
          />
          <span class="figure">{{ say.length(one.readings.mean, 3) }}</span>
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
          v-if="choices.choices"
          :stock="stock"
          :choices="choices.choices"
          :change="shelf.change"
          :problem-at="record.problemAt"
        />
        <ArchiveButton
          what="board"
          :name="stock.document.name"
          :uses="() => api.jobsOfStock(stock!.id)"
          :archive="shelf.archive"
          :restore="restoring(stock.id)"
        />
        <ProblemNote
          v-if="record.problem.value && !record.problem.value.field"
          :problem="record.problem.value"
        />
      </template>
    </template>
  </WorkshopLayout>
  <NewStock v-if="adding" :save="shelf.add" @close="adding = false" />
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
.warning {
  margin-bottom: 8px;
  padding: 5px 10px;
  background: var(--ochre-wash);
}
.mean {
  font-size: 1.75rem;
}
dl {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 26px;
  margin: 4px 0 8px;
}
dl div {
  display: grid;
}
dt {
  color: var(--second);
  font: 0.9rem var(--words);
}
.history li {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 2px 10px;
  padding: 3px 0;
  border-top: 1px solid var(--line);
}
.history li > :first-child {
  min-width: 6.5rem;
}
.history li > :nth-child(2) {
  min-width: 4rem;
}
</style>
