<script setup lang="ts">
import { computed } from 'vue'

import { api, type Task } from '../api/client'

/** How far some heavy work is, and the way to end it. */
const { task } = defineProps<{ task: Task }>()

const said = computed(() => {
  if (task.state !== 'waiting') return task.stage || 'starting'
  return task.ahead ? `waiting for ${task.ahead} other task${task.ahead > 1 ? 's' : ''}` : 'waiting to start'
})
</script>

<template>
  <p class="task small" role="status">
    <span class="what">{{ task.title }}: {{ said }}</span>
    <progress :value="task.state === 'running' ? task.progress : 0" max="1" :aria-label="task.title" />
    <span class="figure">{{ Math.round(100 * task.progress) }} %</span>
    <button type="button" class="link" @click="api.cancelTask(task.id)">cancel</button>
  </p>
</template>

<style scoped>
.task {
  display: flex;
  align-items: center;
  gap: 10px;
  padding: 6px 22px;
  background: var(--deep-wash);
}
progress {
  flex: 1;
  max-width: 260px;
  height: 6px;
  border: 0;
  background: var(--line);
  appearance: none;
}
progress::-webkit-progress-bar {
  background: var(--line);
}
progress::-webkit-progress-value {
  background: var(--deep);
}
progress::-moz-progress-bar {
  background: var(--deep);
}
.figure {
  min-width: 42px;
  text-align: right;
}
</style>
