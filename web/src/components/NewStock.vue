<script setup lang="ts">
import { computed } from 'vue'

import type { StockIn } from '../api/client'
import { useSettings } from '../stores/settings'
import { splitLengths } from '../units'
import RecordDialog, { type Question } from './RecordDialog.vue'

/** Asks for a board that is not on the rack yet. */
const props = defineProps<{ kinds: readonly string[]; save: (stock: StockIn) => Promise<void> }>()
const emit = defineEmits<{ close: [] }>()
const settings = useSettings()

const questions = computed<Question[]>(() => [
  { name: 'name', label: 'Name', start: '' },
  { name: 'kind', label: 'Kind', start: 'plywood', choices: props.kinds },
  { name: 'nominal', label: `Sold as, ${settings.unit}`, start: '' },
  {
    name: 'readings',
    label: `Readings, ${settings.unit}`,
    start: '',
    help: 'by caliper, as many as you took',
  },
  { name: 'sheets', label: 'Sheets at hand', start: '', help: 'empty: as many as it takes' },
  { name: 'sheet_width', label: `Sheet width, ${settings.unit}`, start: '' },
  { name: 'sheet_height', label: `Sheet height, ${settings.unit}`, start: '' },
])

function keep(answers: Record<string, string>): Promise<void> {
  return props.save({
    name: answers['name']!,
    kind: answers['kind']!,
    nominal: answers['nominal']!,
    readings: splitLengths(answers['readings']!),
    sheet_width: answers['sheet_width']!,
    sheet_height: answers['sheet_height']!,
    sheets: answers['sheets']?.trim() || null,
    unit: settings.unit,
  })
}
</script>

<template>
  <RecordDialog title="A new board" :questions="questions" :save="keep" @close="emit('close')" />
</template>
