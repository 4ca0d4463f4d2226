<script setup lang="ts">
import { computed } from 'vue'

import TextField from '../kit/TextField.vue'
import { useJob } from '../stores/job'
import { useSettings } from '../stores/settings'

/** One length of the open job to type, with the job's problem at its own field. */
const props = defineProps<{
  field: string
  label: string
  text: string
  hideLabel?: boolean
  placeholder?: string
  help?: string
  /** For a number that is no length. */
  plain?: boolean
}>()
const emit = defineEmits<{ commit: [text: string]; cancel: [] }>()
const job = useJob()
const settings = useSettings()
const problem = computed(() => job.problemAt(props.field))
</script>

<template>
  <TextField
    :field="field"
    :label="label"
    :text="text"
    :hide-label="hideLabel ?? false"
    :placeholder="placeholder ?? ''"
    :help="help ?? ''"
    :unit="plain ? '' : settings.unit"
    :problem="problem"
    @commit="emit('commit', $event)"
    @cancel="emit('cancel')"
    @clear="job.problem = null"
  />
</template>
