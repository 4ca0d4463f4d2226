<script setup lang="ts">
import { ref, watch } from 'vue'

import type { Problem } from '../api/client'
import Field from './Field.vue'

/** Something to type: Enter or leaving the field commits it, Escape brings back what was there. */
const props = defineProps<{
  field: string
  label: string
  text: string
  problem?: Problem | null
  hideLabel?: boolean
  placeholder?: string
  help?: string
  /** Stands inside the field, behind what is typed. */
  unit?: string
  words?: boolean
  most?: number
}>()
const emit = defineEmits<{ draft: [text: string]; commit: [text: string]; cancel: []; clear: [] }>()

const draft = ref(props.text)
let sent = props.text

/** A change that did not get through may be sent again as it is. */
watch(
  () => props.problem,
  (problem) => {
    if (problem && AGAIN.includes(problem.code)) sent = props.text
  },
)
const AGAIN = ['unreachable', 'busy', 'signed-out']
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
function restore(event: Event): void {
  emit('cancel')
  if (draft.value === props.text && !props.problem) return
  event.stopPropagation()
  draft.value = sent = props.text
  if (props.problem) emit('clear')
}

function mend(text: string): void {
  draft.value = text
  commit()
}
</script>

<template>
  <Field
    v-slot="{ id }"
    :label="label"
    :hide-label="hideLabel ?? false"
    :field="field"
    :help="help ?? ''"
    :problem="problem ?? null"
    @mend="mend"
  >
    <ElInput
      :id="id"
      v-model="draft"
      :class="{ figure: !words }"
      autocomplete="off"
      :placeholder="placeholder ?? ''"
      :maxlength="most"
      @input="emit('draft', $event)"
      @keydown.enter="commit"
      @keydown.esc="restore"
      @blur="commit"
      @focus="($event.target as HTMLInputElement).select()"
    >
      <template v-if="unit" #suffix>{{ unit }}</template>
    </ElInput>
  </Field>
</template>
