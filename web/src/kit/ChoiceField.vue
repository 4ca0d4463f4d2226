<script setup lang="ts" generic="Value extends string | number">
import { computed } from 'vue'

import type { Problem } from '../api/client'
import ChoiceOption from './ChoiceOption.vue'
import Field from './Field.vue'
import type { Option } from './options'

/** One of a list: searched by typing where the list is long, with a second line where there is something to tell. */
const props = defineProps<{
  label: string
  options: readonly Option<Value>[]
  modelValue: Value | null
  field?: string
  problem?: Problem | null
  hideLabel?: boolean
  placeholder?: string
  help?: string
}>()
const emit = defineEmits<{ 'update:modelValue': [value: Value] }>()
const SEARCHED = 8

const groups = computed(() => {
  const found = new Map<string, Option<Value>[]>()
  for (const option of props.options) {
    const group = option.group ?? ''
    found.set(group, [...(found.get(group) ?? []), option])
  }
  return [...found]
})
</script>

<template>
  <Field
    v-slot="{ id }"
    :label="label"
    :hide-label="hideLabel ?? false"
    :field="field ?? ''"
    :help="help ?? ''"
    :problem="problem ?? null"
  >
    <ElSelect
      :id="id"
      :model-value="modelValue"
      :placeholder="placeholder ?? ''"
      :filterable="options.length > SEARCHED"
      :fit-input-width="false"
      :empty-values="[null, undefined]"
      no-match-text="Nothing of that name"
      no-data-text="Nothing to choose from"
      @change="emit('update:modelValue', $event as Value)"
    >
      <template v-for="[group, some] in groups" :key="group">
        <ElOptionGroup v-if="group" :label="group">
          <ChoiceOption v-for="option in some" :key="option.value" :option="option" />
        </ElOptionGroup>
        <template v-else>
          <ChoiceOption v-for="option in some" :key="option.value" :option="option" />
        </template>
      </template>
    </ElSelect>
  </Field>
</template>
