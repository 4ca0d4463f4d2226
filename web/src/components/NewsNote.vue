<script setup lang="ts">
import type { News } from '../api/client'
import { useSay } from '../composables/useSay'
import { useJob } from '../stores/job'
import ChangeList from './ChangeList.vue'

/** What the workshop now says of the job's board or machine, what that would change, and the offer to follow. */
const props = defineProps<{ news: News }>()
const job = useJob()
const say = useSay()
const USE = {
  board: 'Use the rack’s',
  machine: 'Use the workshop’s',
  notebook: 'Use the notebook’s',
} as const
const follow = () => job.edit(...(props.news.edits as Parameters<typeof job.edit>))
</script>

<template>
  <div class="news small" role="status">
    <p>
      {{ say.sentence(news.said) }}<template v-if="news.at">, {{ say.moment(news.at) }}</template
      >.
      <ElButton link @click="follow">{{ USE[news.of] }}</ElButton>
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
