<script setup lang="ts">
import { RouterLink } from 'vue-router'

import type { Following } from '../api/client'
import { useSay } from '../composables/useSay'
import { useJob } from '../stores/job'
import ChangeList from './ChangeList.vue'

/** The job was computed from older figures than the workshop has now: which, what would change, and one press to follow. */
const props = defineProps<{ behind: Following }>()
const job = useJob()
const say = useSay()
const follow = () => job.edit(...(props.behind.edits as Parameters<typeof job.edit>))
</script>

<template>
  <section class="today" aria-label="Newer in the workshop">
    <ul>
      <li v-for="one in behind.said" :key="one">{{ say.sentence(one) }}.</li>
    </ul>
    <template v-if="behind.stays">
      <p>
        On that it would not work: {{ say.sentence(behind.stays.why) }} {{ say.sentence(behind.stays.fix) }}
      </p>
      <RouterLink :to="{ name: 'measure' }">See at Measure</RouterLink>
    </template>
    <template v-else>
      <details v-if="behind.changes.length">
        <summary>
          {{ behind.changes.length + behind.more }} figure{{
            behind.changes.length + behind.more > 1 ? 's' : ''
          }}
          would change
        </summary>
        <ChangeList :changes="behind.changes" />
        <p v-if="behind.more" class="small second">and {{ behind.more }} more</p>
      </details>
      <p v-else class="small">No figure of the job would change.</p>
      <ElButton @click="follow">Follow the workshop</ElButton>
    </template>
  </section>
</template>

<style scoped>
.today {
  display: grid;
  justify-items: start;
  gap: 4px;
  padding: 8px 12px;
  background: var(--ochre-wash);
  border-left: 3px solid var(--ochre);
}
details {
  justify-self: stretch;
}
</style>
