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
/** What is known before it has ended: of a proof, what was found on the sheets that were looked at. */
const soFar = computed(() => {
  const known = task.so_far
  if (!known?.done && !known?.found) return ''
  const sheets = `${known.done} of ${known.of} sheet${known.of > 1 ? 's' : ''} measured`
  if (!known.found) return `${sheets}, no problems so far.`
  const more = known.found - known.first.length
  return `${sheets}; found so far: ${known.first.join(' ')}${more > 0 ? ` And ${more} more.` : ''}`
})
</script>

<template>
  <p class="task small" role="status">
    <span>{{ task.title }}: {{ said }}</span>
    <ElProgress class="bar" :percentage="percent" :aria-label="task.title" :stroke-width="6" />
    <span v-if="soFar" class="so-far">{{ soFar }}</span>
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
.so-far {
  flex-basis: 100%;
  color: var(--second);
}
</style>
