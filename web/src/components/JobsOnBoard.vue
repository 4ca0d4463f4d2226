<script setup lang="ts">
import type { Change, JobsOnBoard } from '../api/client'
import { useSay } from '../composables/useSay'

/** What new readings would do to the jobs of a board; files that were handed over never change by themselves. */
defineProps<{ jobs: JobsOnBoard; saved: boolean; used: readonly number[] }>()
defineEmits<{ use: [job: number] }>()
const say = useSay()
const words = (one: Change) => {
  const what = [one.about, one.title].filter(Boolean).join(' ')
  return one.before === null || one.after === null
    ? `${what}: ${one.word_after}`
    : `${what} ${say.short(one.before)} → ${say.short(one.after)}`
}
</script>

<template>
  <ul>
    <li v-for="job in jobs.jobs" :key="job.id" :class="{ warn: job.handed && job.fits }">
      <RouterLink class="name" :to="{ name: 'measure', params: { id: job.id } }">{{ job.name }}</RouterLink>
      <p v-if="job.problem" class="bad">{{ say.sentence(job.problem.why) }}</p>
      <template v-else>
        <p v-if="job.handed && job.gap !== null" class="small ochre">
          Handed over before: in the slots of that file the board has {{ say.length(job.gap) }}
          {{ say.unit }}, {{ job.fits }}.
        </p>
        <p class="small second">{{ job.changes.map(words).join('; ') || 'Nothing of it would change.' }}</p>
      </template>
      <ElButton v-if="saved && !used.includes(job.id) && !job.problem" @click="$emit('use', job.id)">
        Use it for this job
      </ElButton>
      <span v-else-if="used.includes(job.id)" class="small good">✓ follows now</span>
    </li>
    <li v-if="jobs.more" class="small second">and {{ jobs.more }} more</li>
  </ul>
</template>

<style scoped>
li {
  display: grid;
  justify-items: start;
  gap: 1px;
  padding: 7px 0;
  border-top: 1px solid var(--line);
}
.name {
  min-height: 24px;
  color: inherit;
  font-weight: 600;
  text-decoration: none;
}
.good {
  color: var(--deep);
}
</style>
