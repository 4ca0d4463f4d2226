<script setup lang="ts">
import { computed, ref, watch } from 'vue'

import { useJob } from '../stores/job'
import ProblemNote from './ProblemNote.vue'

/** The job's name, changed where it stands. */
const job = useJob()
const name = ref('')
const problem = computed(() => job.problemAt('name'))

watch(
  () => job.design?.name,
  (now) => (name.value = now ?? ''),
  { immediate: true },
)

function commit(): void {
  if (name.value !== job.design?.name) void job.put('name', name.value)
}

function restore(): void {
  name.value = job.design?.name ?? ''
  if (problem.value) job.problem = null
}
</script>

<template>
  <span class="name">
    <input
      v-model="name"
      aria-label="name of the job"
      data-field="name"
      maxlength="80"
      :size="Math.max(name.length, 4)"
      @keydown.enter="commit"
      @keydown.esc="restore"
      @blur="commit"
    />
    <ProblemNote v-if="problem" class="problem" :problem="problem" />
  </span>
</template>

<style scoped>
.name {
  position: relative;
}
input {
  padding: 1px 4px;
  border: 1px solid transparent;
  border-radius: 3px;
  background: none;
  font-weight: 600;
  field-sizing: content;
}
input:hover,
input:focus {
  border-color: #ffffff44;
}
.problem {
  position: absolute;
  z-index: 30;
  top: 100%;
  width: 260px;
  color: var(--ink);
}
</style>
