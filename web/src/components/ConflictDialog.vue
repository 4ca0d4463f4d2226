<script setup lang="ts">
import { useJob } from '../stores/job'

/** Two windows edited one job: nobody's work goes until the maker says which counts. */
const job = useJob()
</script>

<template>
  <ElDialog
    :model-value="true"
    title="Changed in another window"
    width="460"
    append-to-body
    :show-close="false"
    :close-on-click-modal="false"
    :close-on-press-escape="false"
  >
    <p>This job was saved elsewhere since it was shown here. Your last edit is not saved yet.</p>
    <template #footer>
      <div class="choices">
        <button class="plain" @click="job.takeTheirs()">Show theirs, drop my edit</button>
        <button class="strong" @click="job.saveMine()">Put my edit on top of theirs</button>
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
