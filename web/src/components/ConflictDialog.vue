<script setup lang="ts">
import { computed } from 'vue'

import { useJob } from '../stores/job'
import { useSettings } from '../stores/settings'
import { inUnit } from '../units'

/** Two windows changed the same thing: nobody's work goes until the maker says which counts. */
const job = useJob()
const settings = useSettings()
const why = computed(() => inUnit(job.conflict?.problem.why ?? '', settings.unit))
</script>

<template>
  <ElDialog
    :model-value="true"
    title="Changed elsewhere"
    width="500"
    append-to-body
    :show-close="false"
    :close-on-click-modal="false"
    :close-on-press-escape="false"
  >
    <p>{{ why }}</p>
    <p class="second">Your change is not saved yet. Either way both stay in the history.</p>
    <template #footer>
      <div class="choices">
        <button class="plain" @click="job.takeTheirs()">Show theirs, drop mine</button>
        <button class="strong" @click="job.saveMine()">Make my change on top of theirs</button>
      </div>
    </template>
  </ElDialog>
</template>

<style scoped>
.choices {
  display: flex;
  justify-content: flex-end;
  gap: 10px;
}
</style>
