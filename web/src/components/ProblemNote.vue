<script setup lang="ts">
import type { Problem } from '../api/client'
import { useSay } from '../composables/useSay'

/** What is wrong and what to do, where it was typed; what was likely meant can be taken where somebody listens. */
defineProps<{ problem: Pick<Problem, 'why' | 'fix' | 'mend'>; onMend?: (text: string) => void }>()
const say = useSay()
</script>

<template>
  <p class="problem small" role="alert">
    {{ say.sentence(problem.why) }} <b>{{ say.sentence(problem.fix) }}</b>
    <ElButton v-if="problem.mend && onMend" link size="small" @click="onMend(problem.mend)">
      Use {{ say.sentence(problem.mend) }}
    </ElButton>
  </p>
</template>

<style scoped>
.problem {
  margin-top: 4px;
  padding: 4px 8px;
  border-left: 3px solid var(--bad);
  background: var(--bad-wash);
}
b {
  font-weight: 500;
}
</style>
