<script setup lang="ts">
import { computed } from 'vue'

import type { StockIn } from '../api/client'
import { useChoices } from '../stores/choices'
import { useSettings } from '../stores/settings'
import { splitLengths } from '../units'
import RecordDialog, { type Question } from './RecordDialog.vue'

/** Asks for a board that is not on the rack yet. */
const props = defineProps<{ save: (stock: StockIn) => Promise<void> }>()
const emit = defineEmits<{ close: [] }>()
const settings = useSettings()
const choices = useChoices()

const questions = computed<Question[]>(() => {
  const length = { start: '', unit: settings.unit, required: true }
  return [
    { name: 'name', label: 'Name', start: '', words: true, required: true },
    { name: 'kind', label: 'Kind', start: 'plywood', choices: choices.choices?.stock_kinds ?? [] },
    {
      name: 'made_of',
      label: 'Made of',
      start: '',
      required: true,
      choices: choices.choices?.made_of ?? [],
      only: ['kind', 'composite'],
    },
    { ...length, name: 'nominal', label: 'Nominal thickness' },
    { ...length, name: 'readings', label: 'Readings', help: 'by caliper, as many as you took' },
    { name: 'sheets', label: 'Sheets at hand', start: '', help: 'Leave empty for as many as it takes.' },
    { ...length, name: 'sheet_width', label: 'Sheet width' },
    { ...length, name: 'sheet_height', label: 'Sheet height' },
  ]
})

function add(answers: Record<string, string>): Promise<void> {
  return props.save({
    name: answers['name']!,
    kind: answers['kind']!,
    made_of: answers['kind'] === 'composite' ? answers['made_of']! : '',
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
  <RecordDialog
    title="New board"
    action="Add board"
    :questions="questions"
    :save="add"
    @close="emit('close')"
  />
</template>
