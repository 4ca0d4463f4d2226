<script setup lang="ts">
import type { News } from '../api/client'
import { useSay } from '../composables/useSay'
import { useJob } from '../stores/job'
import ChangeList from './ChangeList.vue'

/** What the workshop now says of the job's board or machine, what that would change, and the offer to follow. */
const props = defineProps<{ news: News }>()
const job = useJob()
const say = useSay()
const follow = () =>
  job.put(`basis/${props.news.board}/${props.news.of === 'board' ? 'stock' : 'machine'}`, props.news.id)
</script>

<template>
  <div class="news small" role="status">
    <p>
      <template v-if="news.thickness !== null && news.what.includes('thickness')">
        The rack says <b class="figure">{{ say.length(news.thickness!, 3) }}</b><template v-if="news.measured"
          >, measured {{ say.date(news.measured) }}</template
        >.
      </template>
      <template v-else>
        {{ news.of === 'board' ? 'On the rack' : 'In the workshop' }} it differs in
        {{ news.what.join(', ') }}.
      </template>
      <ElButton link @click="follow">
        {{ news.of === 'board' ? 'Use the rack’s' : 'Use the workshop’s' }}
      </ElButton>
      <slot />
    </p>
    <p v-if="news.problem" class="bad">It would no longer work: {{ say.sentence(news.problem.why) }}</p>
    <p v-else-if="!news.changes.length" class="second">No figure of the job would change.</p>
    <details v-else>
      <summary>{{ news.changes.length }} figure{{ news.changes.length > 1 ? 's' : '' }} would change</summary>
      <ChangeList :changes="news.changes" />
    </details>
  </div>
</template>

<style scoped>
.news {
  margin: 4px 0 8px;
  padding: 4px 8px;
  background: var(--ochre-wash);
}
.bad {
  color: var(--bad);
}
summary {
  cursor: pointer;
}
</style>
