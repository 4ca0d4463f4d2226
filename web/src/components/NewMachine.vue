<script setup lang="ts">
import { computed } from 'vue'

import type { MachineIn } from '../api/client'
import { useChoices } from '../stores/choices'
import { useSettings } from '../stores/settings'
import RecordDialog, { type Question } from './RecordDialog.vue'

/** Asks for a machine that the workshop does not have yet. */
const props = defineProps<{ save: (machine: MachineIn) => Promise<void> }>()
const emit = defineEmits<{ close: [] }>()
const settings = useSettings()
const choices = useChoices()

const questions = computed<Question[]>(() => {
  const length = { start: '', unit: settings.unit, required: true }
  return [
    { name: 'name', label: 'Name', start: '', words: true, required: true },
    { name: 'kind', label: 'Kind', start: 'laser', choices: choices.choices?.machine_kinds ?? [] },
    { ...length, name: 'kerf', label: 'Kerf', help: 'the width of the beam or the tool' },
    { ...length, name: 'bed_width', label: 'Bed width' },
    { ...length, name: 'bed_height', label: 'Bed height' },
  ]
})

function add(answers: Record<string, string>): Promise<void> {
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
  <RecordDialog
    title="New machine"
    action="Add machine"
    :questions="questions"
    :save="add"
    @close="emit('close')"
  />
</template>
