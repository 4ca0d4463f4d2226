<script setup lang="ts">
import { computed, reactive, ref, shallowRef } from 'vue'

import { Problem } from '../api/client'
import ProblemNote from './ProblemNote.vue'

/** Asks for a new thing of the workshop's, and says what is wrong at its question. Nothing typed is lost. */
export interface Question {
  name: string
  label: string
  start: string
  choices?: readonly string[]
  help?: string
}

const props = defineProps<{
  title: string
  questions: readonly Question[]
  save: (answers: Record<string, string>) => Promise<void>
}>()
const emit = defineEmits<{ close: [] }>()

const open = ref(true)
const answers = reactive(Object.fromEntries(props.questions.map(({ name, start }) => [name, start])))
const problem = shallowRef<Problem | null>(null)

/** The core names fields "stock.name", "readings[2]" or "kerf"; here it is the question that counts. */
const wrong = computed(() => problem.value?.field.replace(/^(stock|machine)\./, '').replace(/\[\d+\]$/, ''))

async function submit(): Promise<void> {
  problem.value = null
  try {
    await props.save({ ...answers })
    open.value = false
  } catch (error) {
    if (!(error instanceof Problem)) throw error
    problem.value = error
  }
}
</script>

<template>
  <ElDialog v-model="open" :title="title" width="460" append-to-body @closed="emit('close')">
    <form @submit.prevent="submit">
      <label v-for="{ name, label, choices, help } in questions" :key="name">
        {{ label }}
        <select v-if="choices" v-model="answers[name]" class="boxed">
          <option v-for="choice in choices" :key="choice">{{ choice }}</option>
        </select>
        <input
          v-else
          v-model="answers[name]"
          class="boxed"
          autocomplete="off"
          :data-field="name"
          :aria-invalid="wrong === name ? 'true' : undefined"
        />
        <span v-if="help" class="small second">{{ help }}</span>
        <ProblemNote v-if="problem && wrong === name" :problem="problem" />
      </label>
      <ProblemNote
        v-if="problem && !questions.some(({ name }) => name === wrong)"
        class="wide"
        :problem="problem"
      />
      <button class="strong">Keep it</button>
    </form>
  </ElDialog>
</template>

<style scoped>
form {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 12px 16px;
  color: var(--ink);
}
label:first-child,
.wide {
  grid-column: 1 / -1;
}
.strong {
  justify-self: start;
}
</style>
