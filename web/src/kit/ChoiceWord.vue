<script setup lang="ts" generic="Value extends string | number">
import { computed } from 'vue'

import type { Option } from './options'

/** A word in a sentence that is a choice: it opens a list in place. */
const props = defineProps<{ label: string; options: readonly Option<Value>[]; modelValue: Value }>()
defineEmits<{ 'update:modelValue': [value: Value] }>()
const word = computed(() => props.options.find(({ value }) => value === props.modelValue)?.label ?? 'choose')
</script>

<template>
  <ElDropdown class="choice" trigger="click" @command="$emit('update:modelValue', $event as Value)">
    <button type="button" class="word" :aria-label="`${label}: ${word}, change`">{{ word }} ▾</button>
    <template #dropdown>
      <ElDropdownMenu :aria-label="label">
        <ElDropdownItem
          v-for="option in options"
          :key="option.value"
          :command="option.value"
          :aria-current="option.value === modelValue ? 'true' : undefined"
        >
          <span class="option">
            <b>{{ option.label }}</b>
            <span v-if="option.detail" class="small second">{{ option.detail }}</span>
          </span>
        </ElDropdownItem>
      </ElDropdownMenu>
    </template>
  </ElDropdown>
</template>

<style scoped>
html .choice {
  color: inherit;
  font: inherit;
  vertical-align: baseline;
}
.word {
  min-height: 26px;
  padding: 0 1px;
  border: 0;
  border-bottom: 2px dotted var(--deep);
  background: none;
  color: var(--deep);
  font-size: inherit;
  font-weight: 600;
  line-height: 1.2;
  cursor: pointer;
}
.word:hover {
  background: var(--deep-wash);
}
.option {
  display: grid;
  line-height: 1.3;
}
</style>
