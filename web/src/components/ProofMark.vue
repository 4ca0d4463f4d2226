<script setup lang="ts">
import { computed } from 'vue'

import { useSay } from '../composables/useSay'
import { useJob } from '../stores/job'
import ProblemNote from './ProblemNote.vue'
import ProofSign from './ProofSign.vue'
import TaskNote from './TaskNote.vue'

/** What is known of the proof of exactly the state that is shown: the same wherever it is told. */
defineProps<{ large?: boolean }>()
const job = useJob()
const say = useSay()

const line = computed(() => {
  const { fresh, proofState: state } = job
  if (fresh) return `${say.sentence(fresh.sentence)}.`
  if (state === 'nothing') return 'There is nothing to cut yet.'
  if (state === 'failed') return 'Not proved.'
  return state === 'running' ? 'The proof is running.' : 'Proving the plan.'
})
const when = computed(() =>
  job.fresh ? `The plan of revision ${job.fresh.revision}, proved ${say.moment(job.fresh.at)}` : '',
)
</script>

<template>
  <section class="proof" :class="[job.proofState, { large }]" aria-label="Proof">
    <ProofSign :state="job.proofState" />
    <div>
      <p class="line">{{ line }}</p>
      <p v-if="when" class="small">{{ when }}</p>
      <p v-else-if="job.proof && job.proofState !== 'nothing'" class="small">
        Older figures are of revision {{ job.proof.revision }}.
      </p>
      <TaskNote v-if="job.proofTask && !job.fresh" :task="job.proofTask" />
      <template v-if="job.proofState === 'failed'">
        <ProblemNote :problem="job.unproved!" />
        <ElButton size="small" @click="job.prove">Prove it now</ElButton>
      </template>
      <slot />
    </div>
  </section>
</template>

<style scoped>
.proof {
  display: grid;
  grid-template-columns: auto minmax(0, 1fr);
  gap: 12px;
  align-items: start;
  padding: 12px 18px;
  border-bottom: 1px solid var(--line);
}
.fits {
  background: var(--deep-wash);
}
.provided,
.as-seen {
  background: var(--ochre-wash);
}
.does-not-fit,
.failed {
  background: var(--bad-wash);
}
.large .line {
  font-size: 1.75rem;
  line-height: 1.1;
}
.line {
  font-size: 1.13rem;
  font-weight: 600;
  line-height: 1.25;
}
</style>
