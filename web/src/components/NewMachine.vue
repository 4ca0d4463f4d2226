<script setup lang="ts">
import { computed } from 'vue'

import type { MachineIn } from '../api/client'
import { useSettings } from '../stores/settings'
import RecordDialog, { type Question } from './RecordDialog.vue'

/** Asks for a machine that the workshop does not know yet. */
const props = defineProps<{ kinds: readonly string[]; save: (machine: MachineIn) => Promise<void> }>()
const emit = defineEmits<{ close: [] }>()
const settings = useSettings()

const questions = computed<Question[]>(() => [
  { name: 'name', label: 'Name', start: '' },
  { name: 'kind', label: 'Kind', start: 'laser', choices: props.kinds },
  { name: 'kerf', label: `Kerf, ${settings.unit}`, start: '', help: 'the beam’s or the tool’s width' },
  { name: 'bed_width', label: `Bed width, ${settings.unit}`, start: '' },
  { name: 'bed_height', label: `Bed height, ${settings.unit}`, start: '' },
])

function keep(answers: Record<string, string>): Promise<void> {
  return props.save({
    name: answers['name']!,
    kind: answers['kind']!,
    kerf: answers['kerf']!,
    bed_width: answers['bed_width']!,
    bed_height: answers['bed_height']!,
    unit: settings.unit,
  })
}
</script>

<template>
  <RecordDialog title="A new machine" :questions="questions" :save="keep" @close="emit('close')" />
</template>
