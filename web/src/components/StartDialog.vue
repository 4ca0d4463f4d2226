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
const form = reactive({ name: 'New job', stock: 0, machine: 0 })

/** "" starts an empty job. */
const chosen = ref('open-tray')
const recipe = computed(() => choices.value?.recipes.find(({ name }) => name === chosen.value) ?? null)
const fieldOf = (found: Problem | null) => found?.field.replace('answers/', '') ?? ''
const elsewhere = computed(() => {
  const known = new Set(['name', ...(recipe.value?.settings.map(({ name }) => name) ?? [])])
  return problem.value && !known.has(fieldOf(problem.value)) ? problem.value : null
})

onMounted(async () => {
  ;[choices.value, stocks.value, machines.value] = await Promise.all([
    api.choices(),
    api.stocks(),
    api.machines(),
  ])
  for (const setting of choices.value.recipes.flatMap(({ settings: asked }) => asked)) {
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
      recipe: chosen.value,
      settings: Object.fromEntries(
        (recipe.value?.settings ?? []).map(({ name }) => [name, answers[name] ?? '']),
      ),
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
  <ElDialog v-model="open" title="New job" width="520" append-to-body @closed="emit('close')">
    <form v-if="choices" @submit.prevent="start">
      <div class="wide choice" role="radiogroup" aria-label="What to start from">
        <label v-for="one in choices.recipes" :key="one.name">
          <input v-model="chosen" type="radio" :value="one.name" name="recipe" /> {{ one.title }}
        </label>
        <label><input v-model="chosen" type="radio" value="" name="recipe" /> Empty job</label>
      </div>
      <p class="second wide">
        {{ recipe ? recipe.about : 'No parts yet: you add them at Shape, one step after the other.' }}
      </p>
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
        v-for="setting in recipe?.settings ?? []"
        :key="setting.name"
        :class="{ wide: setting.kind === 'choice' }"
      >
        {{ setting.title }}
        <span v-if="setting.kind === 'length'" class="second small">{{ settings.unit }}</span>
        <input
          v-if="setting.kind !== 'choice'"
          v-model="answers[setting.name]"
          class="boxed figure"
          autocomplete="off"
          :data-field="setting.name"
          :aria-invalid="fieldOf(problem) === setting.name ? 'true' : undefined"
        />
        <span v-else class="choice">
          <label v-for="choice in setting.choices" :key="choice">
            <input v-model="answers[setting.name]" type="radio" :value="choice" :name="setting.name" />
            {{ choice }}
          </label>
        </span>
        <span class="small second">{{ setting.help }}</span>
        <ProblemNote v-if="problem && fieldOf(problem) === setting.name" :problem="problem" />
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
