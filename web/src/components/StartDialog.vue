<script setup lang="ts">
import { computed, onMounted, reactive, ref, shallowRef } from 'vue'
import { useRouter } from 'vue-router'

import { api, Problem, type Choices, type Machine, type Stock } from '../api/client'
import { useSettings } from '../stores/settings'
import { lengthText, shortText } from '../units'
import ProblemNote from './ProblemNote.vue'

/** Asks a recipe's few questions and starts a job. What is wrong is said at its question; nothing typed is lost. */
const emit = defineEmits<{ close: [] }>()
const router = useRouter()
const settings = useSettings()

const open = ref(true)
const choices = shallowRef<Choices | null>(null)
const stocks = shallowRef<Stock[]>([])
const machines = shallowRef<Machine[]>([])
const problem = shallowRef<Problem | null>(null)
const busy = ref(false)
const answers = reactive<Record<string, string>>({})
const form = reactive({ name: 'Open tray', stock: 0, machine: 0 })

const recipe = computed(() => choices.value?.recipes[0])
const elsewhere = computed(() => {
  const known = new Set(['name', ...(recipe.value?.settings.map(({ name }) => name) ?? [])])
  return problem.value && !known.has(problem.value.field) ? problem.value : null
})

onMounted(async () => {
  ;[choices.value, stocks.value, machines.value] = await Promise.all([
    api.choices(),
    api.stocks(),
    api.machines(),
  ])
  for (const setting of recipe.value!.settings) {
    const inches = setting.kind === 'length' && setting.default && settings.unit === 'in'
    answers[setting.name] = inches ? shortText(Number(setting.default), 'in') : setting.default
  }
  form.stock = stocks.value[0]?.id ?? 0
  form.machine =
    machines.value.find(({ document }) => document.kind === 'laser')?.id ?? machines.value[0]?.id ?? 0
})

async function start(): Promise<void> {
  problem.value = null
  busy.value = true
  try {
    const design = await api.start({
      recipe: recipe.value!.name,
      settings: answers,
      unit: settings.unit,
      ...form,
    })
    await router.push(`/jobs/${design.id}/shape`)
  } catch (error) {
    if (!(error instanceof Problem)) throw error
    problem.value = error
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <ElDialog v-model="open" title="Start a tray" width="520" append-to-body @closed="emit('close')">
    <form v-if="recipe" @submit.prevent="start">
      <p class="second wide">{{ recipe.about }}</p>
      <label class="wide">
        Name
        <input
          v-model="form.name"
          class="boxed"
          maxlength="80"
          :aria-invalid="problem?.field === 'name' ? 'true' : undefined"
        />
        <ProblemNote v-if="problem?.field === 'name'" :problem="problem" />
      </label>
      <label
        v-for="setting in recipe.settings"
        :key="setting.name"
        :class="{ wide: setting.kind === 'choice' }"
      >
        {{ setting.title }}
        <span v-if="setting.kind === 'length'" class="second small">{{ settings.unit }}</span>
        <input
          v-if="setting.kind === 'length'"
          v-model="answers[setting.name]"
          class="boxed figure"
          autocomplete="off"
          :data-field="setting.name"
          :aria-invalid="problem?.field === setting.name ? 'true' : undefined"
        />
        <span v-else class="choice">
          <label v-for="choice in setting.choices" :key="choice">
            <input v-model="answers[setting.name]" type="radio" :value="choice" :name="setting.name" />
            {{ choice }}
          </label>
        </span>
        <span class="small second">{{ setting.help }}</span>
        <ProblemNote v-if="problem?.field === setting.name" :problem="problem" />
      </label>
      <label>
        Board
        <select v-model="form.stock" class="boxed">
          <option v-for="stock in stocks" :key="stock.id" :value="stock.id">
            {{ stock.document.name }}, {{ lengthText(stock.thickness, settings.unit) }} {{ settings.unit }}
          </option>
        </select>
      </label>
      <label>
        Machine
        <select v-model="form.machine" class="boxed">
          <option v-for="machine in machines" :key="machine.id" :value="machine.id">
            {{ machine.document.name }}
          </option>
        </select>
      </label>
      <ProblemNote v-if="elsewhere" class="wide" :problem="elsewhere" />
      <button class="strong" :disabled="busy">Start</button>
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
.wide {
  grid-column: 1 / -1;
}
label:not(.choice label) > input,
label > select {
  display: block;
  margin-top: 2px;
}
.choice {
  display: flex;
  gap: 18px;
}
.strong {
  grid-column: 1 / -1;
  justify-self: start;
}
</style>
