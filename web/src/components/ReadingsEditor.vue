<script setup lang="ts">
import { computed } from 'vue'

import { useJob } from '../stores/job'
import ReadingsList from './ReadingsList.vue'

/** The readings that the open job is computed from. */
const job = useJob()
const problem = computed(() => (job.problem?.field.startsWith('readings') ? job.problem : null))
</script>

<template>
  <ReadingsList
    :values="job.design?.basis.stock.readings ?? []"
    :problem="problem"
    @commit="job.edit({ readings: $event })"
    @clear="job.problem = null"
  />
</template>
