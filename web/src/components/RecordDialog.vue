<script setup lang="ts">
import { computed, reactive, ref } from 'vue'

import { Problem } from '../api/client'
import { useProblem } from '../composables/useProblem'
import ChoiceField from '../kit/ChoiceField.vue'
import { optionsOf } from '../kit/options'
import PlainField from '../kit/PlainField.vue'
import ProblemNote from './ProblemNote.vue'

/** Asks for a new thing of the workshop's, and says what is wrong at its question. Nothing typed is lost. */
export interface Question {
  name: string
  label: string
  start: string
  choices?: readonly string[]
  help?: string
  unit?: string
  words?: boolean
  required?: boolean
  /** Asked only where another answer is this one. */
  only?: readonly [question: string, answer: string]
}

const props = defineProps<{
  title: string
  action: string
  questions: readonly Question[]
  save: (answers: Record<string, string>) => Promise<void>
}>()
const emit = defineEmits<{ close: [] }>()

const open = ref(true)
const busy = ref(false)
const asked = ref(false)
const answers = reactive<Record<string, string>>(
  Object.fromEntries(props.questions.map(({ name, start }) => [name, start])),
)
const { problem, tell } = useProblem()

/** The core names fields "stock.name", "readings[2]" or "kerf"; here it is the question that counts. */
const wrong = computed(() => problem.value?.field.replace(/^(stock|machine)\./, '').replace(/\[\d+\]$/, ''))
const isMissing = ({ name, required }: Question) => required === true && !answers[name]?.trim()
const present = computed(() => props.questions.filter(({ only }) => !only || answers[only[0]] === only[1]))
const elsewhere = computed(() => !present.value.some(({ name }) => name === wrong.value))

/** Everything that is missing is said at once; the rest is the core's to judge. */
function problemOf(question: Question): Problem | null {
  if (asked.value && isMissing(question))
    return new Problem('missing', `${question.label} is missing.`, 'Type it.', question.name, 422)
  return wrong.value === question.name ? problem.value : null
}

async function submit(): Promise<void> {
  asked.value = true
  problem.value = null
  if (present.value.some(isMissing)) return
  busy.value = true
  if (await tell(() => props.save({ ...answers }))) open.value = false
  busy.value = false
}
</script>

<template>
  <ElDialog v-model="open" :title="title" width="34rem" append-to-body @closed="emit('close')">
    <form @submit.prevent="submit">
      <template v-for="question in present" :key="question.name">
        <ChoiceField
          v-if="question.choices"
          :label="question.label"
          :options="optionsOf(question.choices)"
          :field="question.name"
          :model-value="answers[question.name] || null"
          :problem="problemOf(question)"
          @update:model-value="answers[question.name] = $event"
        />
        <PlainField
          v-else
          v-model="answers[question.name]!"
          :label="question.label"
          :field="question.name"
          :help="question.help ?? ''"
          :unit="question.unit ?? ''"
          :words="question.words ?? false"
          :required="question.required ?? false"
          :problem="problemOf(question)"
        />
      </template>
      <ProblemNote v-if="problem && elsewhere" class="wide" :problem="problem" />
      <ElButton type="primary" native-type="submit" :loading="busy">{{ action }}</ElButton>
    </form>
  </ElDialog>
</template>

<style scoped>
form {
  display: grid;
  grid-template-columns: 1fr 1fr;
  align-items: start;
  gap: 12px 16px;
}
.field:first-child,
.wide {
  grid-column: 1 / -1;
}
form > .el-button {
  justify-self: start;
  grid-column: 1 / -1;
}
</style>
