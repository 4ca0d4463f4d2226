<script setup lang="ts">
import { computed } from 'vue'

import { useSay } from '../composables/useSay'
import { useJob } from '../stores/job'

/** Two windows changed the same thing: nothing is saved over until the maker says which counts. */
const job = useJob()
const say = useSay()
const theirs = computed(() => job.conflict?.problem.theirs ?? [])
const mine = computed(() => job.conflict?.problem.mine ?? '')
</script>

<template>
  <ElDialog
    :model-value="true"
    title="Changed elsewhere"
    width="36rem"
    append-to-body
    :show-close="false"
    :close-on-click-modal="false"
    :close-on-press-escape="false"
  >
    <template v-if="mine || theirs.length">
      <h2>Saved since you opened this</h2>
      <ul>
        <li v-for="one in theirs" :key="one.number">
          {{ say.sentence(one.sentence) }}
          <span class="small second"
            >revision {{ one.number }}, {{ one.by || 'somebody' }}, {{ say.moment(one.saved) }}</span
          >
        </li>
        <li v-if="!theirs.length">The job was taken back to an older revision.</li>
      </ul>
      <h2>Yours, not saved yet</h2>
      <p>{{ say.sentence(mine) || 'Your last change.' }}</p>
    </template>
    <p v-else>{{ say.sentence(job.conflict?.problem.why ?? '') }}</p>
    <p class="second">Whichever you choose, both stay in the history.</p>
    <template #footer>
      <div class="choices acts">
        <ElButton @click="job.takeTheirs()">Use theirs, drop mine</ElButton>
        <ElButton type="primary" @click="job.saveMine()">Save mine over theirs</ElButton>
      </div>
    </template>
  </ElDialog>
</template>

<style scoped>
.choices {
  justify-content: flex-end;
}
li {
  padding: 4px 0;
}
h2:not(:first-child) {
  margin-top: 10px;
}
p {
  margin-bottom: 6px;
}
</style>
