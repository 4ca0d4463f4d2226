<script setup lang="ts">
import { ref, watch } from 'vue'

/** A word or number in a sentence that is typed in place: Enter or leaving it commits, Escape brings back what was there. */
const props = defineProps<{
  label: string
  text: string
  field?: string
  wrong?: boolean
  figure?: boolean
}>()
const emit = defineEmits<{ commit: [text: string] }>()
const draft = ref(props.text)
watch(
  () => props.text,
  (text) => (draft.value = text),
)

function commit(): void {
  if (draft.value !== props.text) emit('commit', draft.value)
}
</script>

<template>
  <input
    v-model="draft"
    class="word"
    :class="{ figure }"
    :aria-label="label"
    :aria-invalid="wrong ? 'true' : undefined"
    :data-field="field"
    :style="{ width: `${Math.max(draft.length, 2) + 2.2}ch` }"
    autocomplete="off"
    @keydown.enter="commit"
    @keydown.esc.stop="draft = text"
    @blur="commit"
  />
</template>

<style scoped>
.word {
  min-height: 26px;
  padding: 0 2px;
  border: 0;
  border-bottom: 2px dotted var(--deep);
  background: transparent;
  color: var(--deep);
  font-weight: 600;
}
.word[aria-invalid] {
  border-color: var(--bad);
  color: var(--bad);
}
</style>
