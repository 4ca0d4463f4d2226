<script setup lang="ts">
import { ref } from 'vue'

import { api } from '../api/client'
import { useProblem } from '../composables/useProblem'
import PlainField from '../kit/PlainField.vue'
import { useChoices } from '../stores/choices'
import { useJob } from '../stores/job'
import ProblemNote from './ProblemNote.vue'

/** This job as a recipe of the workshop's own: which of its chosen lengths a new job may set. */
const emit = defineEmits<{ close: [] }>()
const job = useJob()
const choices = useChoices()
const { problem, tell } = useProblem()
const shown = ref(true)
const title = ref(job.design!.name)
const chosen = job.design!.lengths.filter(({ source }) => source === 'chosen')
const open = ref(chosen.map(({ name }) => name))
const saved = ref('')

async function save(): Promise<void> {
  await tell(async () => {
    const recipe = await api.saveRecipe(job.design!.id, title.value, open.value)
    saved.value = recipe.title
    await choices.reload()
  })
}
</script>

<template>
  <ElDialog
    v-model="shown"
    title="Save this job as a recipe"
    width="30rem"
    append-to-body
    @closed="emit('close')"
  >
    <p v-if="saved" role="status">“{{ saved }}” stands on the shelf of the first page now.</p>
    <form v-else @submit.prevent="save">
      <PlainField
        v-model="title"
        label="Name"
        words
        :most="80"
        :problem="problem?.field === 'title' ? problem : null"
      />
      <ElCheckboxGroup v-model="open">
        <p class="second small">Lengths that a new job may set; the others stay as they are here.</p>
        <ElCheckbox
          v-for="one in chosen.filter(({ field }) => field)"
          :key="one.name"
          :value="one.name"
          :label="one.title"
        />
      </ElCheckboxGroup>
      <ProblemNote v-if="problem && problem.field !== 'title'" :problem="problem" />
      <ElButton type="primary" native-type="submit" :disabled="!open.length">Save</ElButton>
    </form>
  </ElDialog>
</template>

<style scoped>
form {
  display: grid;
  gap: 12px;
  justify-items: start;
}
</style>
