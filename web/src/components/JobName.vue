<script setup lang="ts">
import TextField from '../kit/TextField.vue'
import { useJob } from '../stores/job'

/** The job's name, changed where it stands; an empty one is refused, and the old one stays. */
const job = useJob()
</script>

<template>
  <TextField
    class="name"
    field="name"
    label="Name of the job"
    hide-label
    words
    :most="80"
    :text="job.design!.name"
    :problem="job.problemAt('name')"
    @commit="job.put('name', $event)"
    @clear="job.problem = null"
  />
</template>

<style scoped>
.name {
  position: relative;
  flex: 0 1 auto;
  min-width: 6rem;
  max-width: 22rem;
}
.name :deep(.el-input__wrapper) {
  padding: 0 4px;
  background: none;
  box-shadow: none;
}
.name :deep(.el-input__wrapper:hover),
.name :deep(.el-input__wrapper:focus-within) {
  box-shadow: 0 0 0 1px color-mix(in srgb, var(--title-ink) 60%, var(--title)) inset;
}
.name :deep(.el-input__inner) {
  field-sizing: content;
  min-width: 4rem;
  max-width: 100%;
  height: 1.7rem;
  color: var(--title-ink);
  font-weight: 600;
  text-overflow: ellipsis;
}
.name :deep(.problem) {
  position: absolute;
  z-index: 30;
  top: 100%;
  width: 18rem;
  color: var(--ink);
}
</style>
