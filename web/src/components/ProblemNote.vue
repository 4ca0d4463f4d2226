<script setup lang="ts">
import type { Problem } from '../api/client'
import { useSettings } from '../stores/settings'
import { inUnit } from '../units'

/** What is wrong and what to do, where it was typed; what was likely meant can be taken where somebody listens. */
defineProps<{ problem: Pick<Problem, 'why' | 'fix' | 'mend'>; onMend?: (text: string) => void }>()
const settings = useSettings()
</script>

<template>
  <p class="problem small" role="alert">
    {{ inUnit(problem.why, settings.unit) }} <b>{{ inUnit(problem.fix, settings.unit) }}</b>
    <button v-if="problem.mend && onMend" type="button" class="link" @click="onMend(problem.mend)">
      use {{ inUnit(problem.mend, settings.unit) }}
    </button>
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
