<script setup lang="ts">
import type { Problem } from '../api/client'
import ProblemNote from '../components/ProblemNote.vue'

/** Yes or no. */
defineProps<{ label: string; modelValue: boolean; field?: string; problem?: Problem | null }>()
const emit = defineEmits<{ 'update:modelValue': [value: boolean] }>()
</script>

<template>
  <div class="flag" :data-field="field">
    <ElCheckbox
      :model-value="modelValue"
      :label="label"
      @change="emit('update:modelValue', $event === true)"
    />
    <ProblemNote v-if="problem" :problem="problem" />
  </div>
</template>
