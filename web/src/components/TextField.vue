<script setup lang="ts">
import { ref, useId, watch } from 'vue'

import type { Problem } from '../api/client'
import ProblemNote from './ProblemNote.vue'

/** Something to type: Enter or leaving the field commits it, Escape brings back what was there. */
const props = defineProps<{
  field: string
  label: string
  text: string
  problem?: Problem | null
  hideLabel?: boolean
  placeholder?: string
  words?: boolean
}>()
const emit = defineEmits<{ commit: [text: string]; cancel: []; clear: [] }>()

const id = useId()
const draft = ref(props.text)
let sent = props.text

/** A change that did not get through may be sent again as it is. */
watch(
  () => props.problem,
  (problem) => {
    if (problem?.code === 'unreachable' || problem?.code === 'busy') sent = props.text
  },
)
watch(
  () => props.text,
  (text) => {
    if (!props.problem || text !== sent) draft.value = sent = text
  },
)

function commit(): void {
  if (draft.value === sent) return
  sent = draft.value
  emit('commit', draft.value)
}

/** Escape with nothing to bring back is left to whatever the field stands in. */
function restore(event: KeyboardEvent): void {
  emit('cancel')
  if (draft.value === props.text && !props.problem) return
  event.stopPropagation()
  draft.value = sent = props.text
  if (props.problem) emit('clear')
}
</script>

<template>
  <div>
    <label :for="id" :class="{ unseen: hideLabel }">{{ label }}</label>
    <input
      :id="id"
      v-model="draft"
      class="boxed"
      :class="{ figure: !words }"
      autocomplete="off"
      :data-field="field"
      :placeholder="placeholder"
      :aria-invalid="problem ? 'true' : undefined"
      @keydown.enter="commit"
      @keydown.esc="restore"
      @blur="commit"
      @focus="($event.target as HTMLInputElement).select()"
    />
    <ProblemNote v-if="problem" :problem="problem" />
  </div>
</template>

<style scoped>
label {
  display: block;
  margin-bottom: 2px;
  color: var(--second);
}
</style>
