<script setup lang="ts">
import { computed, onUnmounted, ref, shallowRef } from 'vue'
import { useRouter } from 'vue-router'

import { api, type Task } from '../api/client'
import { whole } from '../api/tasks'
import { useBehind } from '../composables/useBehind'
import { useProblem } from '../composables/useProblem'
import { blobOf, save } from '../download'
import { useJob } from '../stores/job'
import { useSettings } from '../stores/settings'
import ProblemNote from './ProblemNote.vue'
import ProofMark from './ProofMark.vue'
import TaskNote from './TaskNote.vue'
import TodayNote from './TodayNote.vue'

/** The verdict of the proof, and what is done next. */
const job = useJob()
const settings = useSettings()
const router = useRouter()
const { behind } = useBehind()
const proof = computed(() => job.fresh)
const { problem: unprinted, tell: print } = useProblem()
const printing = ref(false)
const printTask = shallowRef<Task | null>(null)
let left = false
onUnmounted(() => (left = true))

async function onPaper(): Promise<void> {
  printing.value = true
  await print(async () => {
    const ask = () => api.proofPaper(job.design!.id, settings.style, settings.paper)
    const found = await whole(ask, { watch: (now) => (printTask.value = now), unwanted: () => left })
    if (found) save(blobOf(found.data, 'application/pdf'), found.name)
  })
  printing.value = false
}
</script>

<template>
  <ProofMark large>
    <p v-if="proof" class="acts">
      <ElButton
        v-if="proof.fits"
        :type="behind ? 'default' : 'primary'"
        @click="router.push({ name: 'hand-over' })"
        >Hand over</ElButton
      >
      <ElButton link type="primary" :loading="printing" @click="onPaper">The proof on paper</ElButton>
    </p>
    <TodayNote v-if="behind" :behind="behind" />
    <TaskNote v-if="printTask" :task="printTask" />
    <ProblemNote v-if="unprinted" :problem="unprinted" />
  </ProofMark>
</template>

<style scoped>
.acts {
  margin-top: 8px;
}
</style>
