<script setup lang="ts">
import { computed, ref } from 'vue'
import { useRouter } from 'vue-router'

import { api, type Mate } from '../api/client'
import { useSay } from '../composables/useSay'
import { useJob } from '../stores/job'
import LengthField from './LengthField.vue'

/** A trial pair of the joint is cut as a job of its own; the clearance that held becomes the fit of that pair of boards. */
const props = defineProps<{ mate: Mate }>()
const job = useJob()
const say = useSay()
const router = useRouter()
const starting = ref(false)
const clearance = computed(() => {
  const { contacts } = props.mate
  return (contacts.find((one) => one.by_thickness) ?? contacts[0])?.clearance ?? 0
})

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
      Seven slots with clearances in steps, and two tongues, as a job of its own: cut it, then type the
      clearance that held.
    </p>
    <div class="row">
      <ElButton size="small" :loading="starting" @click="start">Start a trial pair</ElButton>
      <LengthField
        label="Clearance that held"
        :field="mate.fit_field"
        :text="say.length(clearance, 3)"
        @commit="job.put(mate.fit_field, $event)"
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
