<script setup lang="ts">
import { computed, defineAsyncComponent, onMounted, ref, shallowRef } from 'vue'

import { api, type Stock } from '../api/client'
import { useJob } from '../stores/job'
import { useSettings } from '../stores/settings'
import { lengthText, shortText } from '../units'
import ReadingsEditor from './ReadingsEditor.vue'
import type { Question } from './RecordDialog.vue'

const RecordDialog = defineAsyncComponent(() => import('./RecordDialog.vue'))

/** Which board, and how thick it really is. The job keeps its own readings; the rack learns them when asked to. */
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

const questions = computed<Question[]>(() => [
  { name: 'name', label: 'Name', start: '' },
  { name: 'kind', label: 'Kind', start: 'plywood', choices: kinds.value },
  { name: 'nominal', label: `Sold as, ${settings.unit}`, start: '' },
  {
    name: 'readings',
    label: `Readings, ${settings.unit}`,
    start: '',
    help: 'by caliper, with spaces between',
  },
  { name: 'sheets', label: 'Sheets at hand', start: '', help: 'empty: as many as it takes' },
  { name: 'sheet_width', label: `Sheet width, ${settings.unit}`, start: '' },
  { name: 'sheet_height', label: `Sheet height, ${settings.unit}`, start: '' },
])

async function add({
  name,
  kind,
  nominal,
  readings,
  sheets,
  sheet_width,
  sheet_height,
}: Record<string, string>): Promise<void> {
  const values = readings!.split(/[\s;]+/).filter(Boolean)
  const added = await api.addStock({
    name: name!,
    kind: kind!,
    nominal: nominal!,
    readings: values,
    sheet_width: sheet_width!,
    sheet_height: sheet_height!,
    sheets: sheets?.trim() || null,
    unit: settings.unit,
  })
  rack.value = await api.stocks()
  await job.edit({ stock: added.id })
}

const stock = computed(() => job.design!.basis.stock)
const onRack = computed(() => rack.value.find((one) => one.document.name === stock.value.name) ?? null)
const differs = computed(
  () => onRack.value && onRack.value.document.readings.join() !== stock.value.readings.join(),
)

async function keepOnRack(): Promise<void> {
  const changed = await api.changeStock(onRack.value!.id, stock.value)
  rack.value = rack.value.map((one) => (one.id === changed.id ? changed : one))
  kept.value = 'The rack has these readings now.'
}
</script>

<template>
  <div class="stock">
    <label class="second">
      Board from the stock rack
      <select
        class="boxed"
        :value="onRack?.id ?? ''"
        @change="job.edit({ stock: Number(($event.target as HTMLSelectElement).value) })"
      >
        <option v-if="!onRack" value="" disabled>{{ stock.name }}</option>
        <option v-for="one in rack" :key="one.id" :value="one.id">
          {{ one.document.name }}, sold as {{ shortText(one.document.nominal, settings.unit) }}
          {{ settings.unit }}
        </option>
      </select>
    </label>
    <button class="link small" @click="adding = true">add a board to the rack</button>
    <RecordDialog
      v-if="adding"
      title="A new board"
      :questions="questions"
      :save="add"
      @close="adding = false"
    />
    <p class="second head">Thickness by caliper, in {{ settings.unit }}</p>
    <ReadingsEditor />
    <p class="small second">
      mean <b class="figure">{{ lengthText(job.design!.basis.thickness, settings.unit, 3) }}</b> · thin
      <span class="figure">{{ lengthText(job.design!.basis.thin, settings.unit) }}</span> · thick
      <span class="figure">{{ lengthText(job.design!.basis.thick, settings.unit) }}</span>
    </p>
    <p v-if="differs" class="rack small">
      The rack has other readings for {{ stock.name }}.
      <button class="link" @click="job.edit({ stock: onRack!.id })">follow the rack</button>
      <button class="link" @click="keepOnRack">keep these on the rack</button>
    </p>
    <p v-else-if="kept" class="small second" role="status">{{ kept }}</p>
  </div>
</template>

<style scoped>
.head {
  margin: 10px 0 2px;
}
.rack {
  margin-top: 8px;
  padding: 4px 8px;
  background: var(--ochre-wash);
}
</style>
