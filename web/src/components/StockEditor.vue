<script setup lang="ts">
import { computed, defineAsyncComponent, onMounted, ref, shallowRef } from 'vue'

import { api, type Stock, type StockIn } from '../api/client'
import { useNews } from '../composables/useNews'
import { dateText } from '../rack'
import { useJob } from '../stores/job'
import { useSettings } from '../stores/settings'
import { inUnit, lengthText, shortText } from '../units'
import NewsNote from './NewsNote.vue'
import ReadingsEditor from './ReadingsEditor.vue'

const NewStock = defineAsyncComponent(() => import('./NewStock.vue'))

/** Which board, and how thick it really is. The job keeps its own readings; it follows the rack only when asked to. */
const job = useJob()
const settings = useSettings()
const rack = shallowRef<Stock[]>([])
const kinds = shallowRef<string[]>([])
const kept = ref('')
const adding = ref(false)

onMounted(async () => {
  rack.value = await api.stocks()
  kinds.value = (await api.choices()).stock_kinds
})

const basis = computed(() => job.basis!)
const stock = computed(() => basis.value.stock)
const onRack = computed(
  () =>
    rack.value.find(({ id }) => String(id) === stock.value.id) ??
    rack.value.find(({ document }) => !stock.value.id && document.name === stock.value.name) ??
    null,
)

const news = useNews('board')

async function add(body: StockIn): Promise<void> {
  const added = await api.addStock(body)
  adding.value = false
  rack.value = await api.stocks()
  await job.putBasis('stock', added.id)
}

/** A new measurement on the rack, which the job then follows. */
async function keepOnRack(): Promise<void> {
  const { id } = onRack.value!
  await api.changeStock(id, { readings: stock.value.readings })
  rack.value = await api.stocks()
  if (await job.putBasis('stock', id)) kept.value = 'The rack has these readings now.'
}

const sizes = computed(() => [
  { width: stock.value.sheet_width, height: stock.value.sheet_height, count: stock.value.sheets },
  ...stock.value.other_sheets,
])
</script>

<template>
  <div>
    <label class="second">
      Board from the stock rack
      <select
        class="boxed"
        :value="onRack?.id ?? ''"
        @change="job.putBasis('stock', Number(($event.target as HTMLSelectElement).value))"
      >
        <option v-if="!onRack" value="" disabled>{{ stock.name }}</option>
        <option v-for="one in rack" :key="one.id" :value="one.id">
          {{ one.document.name }}, sold as {{ shortText(one.document.nominal, settings.unit) }}
          {{ settings.unit }}
        </option>
      </select>
    </label>
    <p class="links">
      <button class="link small" @click="adding = true">Add a board</button>
      <RouterLink v-if="onRack" class="small go" :to="{ name: 'rack', params: { id: onRack.id } }"
        >Open in rack</RouterLink
      >
    </p>
    <NewStock v-if="adding" :kinds="kinds" :save="add" @close="adding = false" />
    <label v-if="sizes.length > 1" class="second sheet">
      Cut from a sheet of
      <select
        class="boxed"
        :value="0"
        :data-field="job.basisPath('sheet')"
        @change="job.putBasis('sheet', ($event.target as HTMLSelectElement).value)"
      >
        <option v-for="(size, i) in sizes" :key="i" :value="i">
          {{ shortText(size.width, settings.unit) }} × {{ shortText(size.height, settings.unit)
          }}{{ size.count === null ? '' : `, ${size.count} at hand` }}
        </option>
      </select>
    </label>
    <p class="second head">
      Thickness by caliper, in {{ settings.unit }}
      <span class="small">{{
        stock.measured ? `· measured ${dateText(stock.measured)}` : '· measured for this job'
      }}</span>
    </p>
    <NewsNote v-if="news" :news="news">
      <button v-if="onRack && !stock.measured" class="link" @click="keepOnRack">
        keep these on the rack
      </button>
    </NewsNote>
    <p v-else-if="kept" class="small second" role="status">{{ kept }}</p>
    <ReadingsEditor />
    <p class="small second">
      mean <b class="figure">{{ lengthText(basis.thickness, settings.unit, 3) }}</b> · thin
      <span class="figure">{{ lengthText(basis.thin, settings.unit) }}</span> · thick
      <span class="figure">{{ lengthText(basis.thick, settings.unit) }}</span>
    </p>
    <p v-for="warning in basis.warnings" :key="warning" class="small ochre">
      {{ inUnit(warning, settings.unit) }}
    </p>
  </div>
</template>

<style scoped>
.head {
  margin: 10px 0 2px;
}
.sheet {
  display: block;
  margin-top: 6px;
}
.links {
  display: flex;
  justify-content: space-between;
}
.go {
  padding: 2px 4px;
  color: var(--deep);
}
</style>
