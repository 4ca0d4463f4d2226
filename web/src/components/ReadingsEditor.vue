<script setup lang="ts">
import { computed } from 'vue'

import { Problem } from '../api/client'
import { useJob } from '../stores/job'
import ReadingsList from './ReadingsList.vue'

/** The readings that the board looked at is computed from. */
const job = useJob()
const path = computed(() => job.basisPath('readings'))

/** The job's problem, as the list counts: "basis/main/readings/2" is its "readings[2]". */
const problem = computed(() => {
  const found = job.problem
  if (!found?.field.startsWith(path.value)) return null
  const field = `readings${found.field.slice(path.value.length).replace(/\/(\d+)/, '[$1]')}`
  return new Problem(found.code, found.why, found.fix, field, found.status, found.mend)
})
</script>

<template>
  <div :data-field="path">
    <ReadingsList
      :values="job.basis?.stock.readings ?? []"
      :problem="problem"
      @commit="job.putBasis('readings', $event)"
      @clear="job.problem = null"
    />
  </div>
</template>
