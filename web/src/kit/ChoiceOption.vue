<script setup lang="ts" generic="Value extends string | number">
import type { Option } from './options'

/** A line of a list of choices, with a second one where there is something to tell. */
defineProps<{ option: Option<Value> }>()
</script>

<template>
  <ElOption :value="option.value" :label="option.label" :disabled="option.disabled ?? false">
    {{ option.label }}
    <span v-if="option.detail" class="detail small second">{{ option.detail }}</span>
  </ElOption>
</template>

<style scoped>
.detail {
  display: block;
  font-weight: 400;
}
</style>
