<script setup lang="ts">
import type { Problem } from '../api/client'
import Field from './Field.vue'
import type { Option } from './options'

/** One of a few, all in view. */
defineProps<{
  label: string
  options: readonly Option[]
  modelValue: string
  field?: string
  problem?: Problem | null
  hideLabel?: boolean
  help?: string
}>()
const emit = defineEmits<{ 'update:modelValue': [value: string] }>()
</script>

<template>
  <Field
    :label="label"
    group
    :hide-label="hideLabel ?? false"
    :field="field ?? ''"
    :help="help ?? ''"
    :problem="problem ?? null"
  >
    <ElSegmented
      :aria-label="label"
      :model-value="modelValue"
      :options="[...options]"
      @change="emit('update:modelValue', String($event))"
    >
      <template #default="{ item }">
        {{ (item as Option).label }}
        <span v-if="(item as Option).detail" class="detail figure small">{{ (item as Option).detail }}</span>
      </template>
    </ElSegmented>
  </Field>
</template>

<style scoped>
.detail {
  display: block;
}
</style>
