<script setup lang="ts">
import { computed, ref } from 'vue'
import { useRouter } from 'vue-router'

import { api, type Mate } from '../api/client'
import { useSay } from '../composables/useSay'
import ChoiceField from '../kit/ChoiceField.vue'
import { useJob } from '../stores/job'

/** A trial pair of the joint is cut as a job of its own; the clearance that held becomes the fit of that pair of boards. */
const props = defineProps<{ mate: Mate }>()
const job = useJob()
const say = useSay()
const router = useRouter()
const starting = ref(false)
const slots = computed(() =>
  props.mate.trial.map((mm, i) => ({
    value: String(i + 1),
    label: `${i + 1}: ${say.signed(mm, 3)} ${say.unit}`,
  })),
)
const now = computed(() => {
  const { contacts } = props.mate
  const clearance = (contacts.find((one) => one.by_thickness) ?? contacts[0])?.clearance
  const found = props.mate.trial.findIndex((mm) => Math.abs(mm - (clearance ?? NaN)) < 1e-6)
  return found < 0 ? '' : String(found + 1)
})
const held = (slot: string) => job.put(props.mate.fit_field, `${props.mate.trial[+slot - 1]} mm`)

async function start(): Promise<void> {
  starting.value = true
  await job.attempt(async () => {
    const { id } = await api.trialPair(job.design!.id, props.mate.id)
    await router.push({ name: 'lay-out', params: { id } })
  })
  starting.value = false
}
</script>

<template>
  <section v-if="mate.fit_field" class="trial">
    <h2>Trial pair</h2>
    <p class="small second">
      {{ mate.trial.length }} numbered slots with clearances in steps, and two tongues, as a job of its own:
      cut it, then say which slot held.
    </p>
    <div class="row">
      <ElButton size="small" :loading="starting" @click="start">Start a trial pair</ElButton>
      <ChoiceField
        label="The slot that held"
        :field="mate.fit_field"
        :options="slots"
        :model-value="now"
        :problem="job.problemAt(mate.fit_field)"
        @update:model-value="held"
      />
    </div>
  </section>
</template>

<style scoped>
.trial {
  padding: 8px 18px;
  border-top: 1px solid var(--line);
}
.row {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 12px;
  align-items: end;
  padding-top: 4px;
}
</style>
