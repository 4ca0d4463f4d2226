<script setup lang="ts">
import { computed } from 'vue'

import { useJob } from '../stores/job'
import TextField from './TextField.vue'

/** One length of the open job to type, with the job's problem at its own field. */
const props = defineProps<{
  field: string
  label: string
  text: string
  hideLabel?: boolean
  placeholder?: string
}>()
const emit = defineEmits<{ commit: [text: string]; cancel: [] }>()
const job = useJob()
const problem = computed(() => job.problemAt(props.field))
</script>

<template>
  <TextField
    v-bind="props"
    :problem="problem"
    @commit="emit('commit', $event)"
    @cancel="emit('cancel')"
    @clear="job.problem = null"
  />
</template>
