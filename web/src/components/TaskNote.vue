<script setup lang="ts">
import { computed } from 'vue'

import { api, type Task } from '../api/client'

/** How far some heavy work is, and the way to end it. */
const { task } = defineProps<{ task: Task }>()

const said = computed(() => {
  if (task.state !== 'waiting') return task.stage || 'starting'
  return task.ahead ? `waiting for ${task.ahead} other task${task.ahead > 1 ? 's' : ''}` : 'waiting to start'
})
const percent = computed(() => Math.round(task.state === 'running' ? 100 * task.progress : 0))
</script>

<template>
  <p class="task small" role="status">
    <span>{{ task.title }}: {{ said }}</span>
    <ElProgress class="bar" :percentage="percent" :aria-label="task.title" :stroke-width="6" />
    <ElButton link size="small" @click="api.cancelTask(task.id)">Cancel</ElButton>
  </p>
</template>

<style scoped>
.task {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 10px;
  padding: 4px 0;
}
.bar {
  flex: 1;
  min-width: 9rem;
  max-width: 20rem;
}
</style>
