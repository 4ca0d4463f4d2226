<script setup lang="ts">
import { ref } from 'vue'
import { useRouter } from 'vue-router'

import { api } from '../api/client'
import { useProblem } from '../composables/useProblem'
import PlainField from '../kit/PlainField.vue'
import { useSettings } from '../stores/settings'
import { useWorkshop } from '../stores/workshop'
import { usualMachine } from '../workshopChoice'
import ProblemNote from './ProblemNote.vue'
import StartBasis from './StartBasis.vue'

/** A job without parts: they are added at Shape. */
const router = useRouter()
const settings = useSettings()
const workshop = useWorkshop()
const { problem, tell } = useProblem()
const name = ref('New job')
const stock = ref(workshop.boards?.[0]?.id ?? 0)
const machine = ref(usualMachine(workshop.machines ?? []))
const fit = ref('')
const busy = ref(false)

async function start(): Promise<void> {
  busy.value = true
  await tell(async () => {
    const { id } = await api.start({
      recipe: '', settings: {}, name: name.value, stock: stock.value, machine: machine.value, fit: fit.value, unit: settings.unit,
    }) // prettier-ignore
    await router.push({ name: 'shape', params: { id } })
  })
  busy.value = false
}
</script>

<template>
  <div>
    <StartBasis
      :stock="stock"
      :machine="machine"
      :fit="fit"
      :draft="null"
      @stock="stock = $event"
      @machine="machine = $event"
      @fit="fit = $event"
    />
    <main id="main" tabindex="-1">
      <h1 class="unseen">Empty job</h1>
      <form @submit.prevent="start">
        <p class="second">No parts yet: you add them at Shape, one step after the other.</p>
        <PlainField
          v-model="name"
          label="Name"
          words
          :most="80"
          :problem="problem?.field === 'name' ? problem : null"
        />
        <ProblemNote v-if="problem && problem.field !== 'name'" :problem="problem" />
        <ElButton
          type="primary"
          size="large"
          native-type="submit"
          :loading="busy"
          :disabled="!stock || !machine"
        >
          Start an empty job
        </ElButton>
      </form>
    </main>
  </div>
</template>

<style scoped>
form {
  display: grid;
  gap: 14px;
  justify-items: start;
  max-width: 30rem;
  padding: 24px;
}
</style>
