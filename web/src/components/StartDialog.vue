<script setup lang="ts">
import { computed, onMounted, reactive, ref } from 'vue'
import { useRouter } from 'vue-router'

import { api } from '../api/client'
import { useProblem } from '../composables/useProblem'
import { useSay } from '../composables/useSay'
import ChoiceField from '../kit/ChoiceField.vue'
import { optionsOf } from '../kit/options'
import PickField from '../kit/PickField.vue'
import PlainField from '../kit/PlainField.vue'
import { useChoices } from '../stores/choices'
import { useSettings } from '../stores/settings'
import { useWorkshop } from '../stores/workshop'
import ProblemNote from './ProblemNote.vue'

/** Asks a recipe's few questions and starts a job. What is wrong is said at its question; nothing typed is lost. */
const emit = defineEmits<{ close: [] }>()
const router = useRouter()
const say = useSay()
const settings = useSettings()
const choices = useChoices()
const workshop = useWorkshop()

const open = ref(true)
const busy = ref(false)
const { problem, tell } = useProblem()
const answers = reactive<Record<string, string>>({})
const form = reactive({ name: 'New job', stock: 0, machine: 0 })

/** "" starts an empty job. */
const chosen = ref('open-tray')
const starts = computed(() => [
  ...(choices.choices?.recipes ?? []).map(({ name, title }) => ({ value: name, label: title })),
  { value: '', label: 'Empty job' },
])
const recipe = computed(() => choices.choices?.recipes.find(({ name }) => name === chosen.value) ?? null)
const at = (field: string) => (problem.value?.field.replace('answers/', '') === field ? problem.value : null)
const elsewhere = computed(
  () => problem.value && !at('name') && !recipe.value?.settings.some(({ name }) => at(name)),
)

onMounted(() =>
  tell(async () => {
    const [{ recipes }] = await Promise.all([choices.load(), workshop.load()])
    for (const { name, kind, default: usual } of recipes.flatMap((one) => one.settings)) {
      answers[name] = kind === 'length' && usual ? say.short(Number(usual)) : usual
    }
    form.stock = workshop.boards?.[0]?.id ?? 0
    const laser = workshop.machines?.find(({ document }) => document.kind === 'laser')
    form.machine = (laser ?? workshop.machines?.[0])?.id ?? 0
  }),
)

async function start(): Promise<void> {
  busy.value = true
  await tell(async () => {
    const asked = (recipe.value?.settings ?? []).map(({ name }) => [name, answers[name] ?? ''])
    const given = { recipe: chosen.value, settings: Object.fromEntries(asked), unit: settings.unit, ...form }
    const { id } = await api.start(given)
    await router.push({ name: 'shape', params: { id } })
  })
  busy.value = false
}
</script>

<template>
  <ElDialog v-model="open" title="New job" width="38rem" append-to-body @closed="emit('close')">
    <form v-if="choices.choices && workshop.boards" @submit.prevent="start">
      <PickField v-model="chosen" class="wide" label="Start from" :options="starts" />
      <p class="second wide">
        {{ recipe ? recipe.about : 'No parts yet: you add them at Shape, one step after the other.' }}
      </p>
      <PlainField v-model="form.name" class="wide" label="Name" words :most="80" :problem="at('name')" />
      <template v-for="setting in recipe?.settings ?? []" :key="setting.name">
        <PickField
          v-if="setting.kind === 'choice'"
          v-model="answers[setting.name]!"
          class="wide"
          :label="setting.title"
          :options="optionsOf(setting.choices)"
          :help="setting.help"
          :problem="at(setting.name)"
        />
        <PlainField
          v-else
          v-model="answers[setting.name]!"
          :label="setting.title"
          :field="setting.name"
          :unit="setting.kind === 'length' ? say.unit : ''"
          :help="setting.help"
          :problem="at(setting.name)"
        />
      </template>
      <ChoiceField v-model="form.stock" class="wide" label="Board" :options="workshop.boardOptions" />
      <ChoiceField v-model="form.machine" class="wide" label="Machine" :options="workshop.machineOptions" />
      <p v-if="!form.stock || !form.machine" class="wide">
        A job needs a board and a machine: add them to the
        <RouterLink :to="{ name: 'rack' }">stock rack</RouterLink> and the
        <RouterLink :to="{ name: 'machines' }">machines</RouterLink>.
      </p>
      <ProblemNote v-if="problem && elsewhere" class="wide" :problem="problem" />
      <ElButton type="primary" native-type="submit" :loading="busy" :disabled="!form.stock || !form.machine"
        >Start</ElButton
      >
    </form>
    <ProblemNote v-else-if="problem" :problem="problem" />
    <ElSkeleton v-else animated :rows="6" />
  </ElDialog>
</template>

<style scoped>
form {
  display: grid;
  grid-template-columns: 1fr 1fr;
  align-items: start;
  gap: 12px 16px;
}
.wide {
  grid-column: 1 / -1;
}
form > .el-button {
  justify-self: start;
}
</style>
