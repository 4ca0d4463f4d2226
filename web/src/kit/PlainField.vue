<script setup lang="ts">
import type { Problem } from '../api/client'
import Field from './Field.vue'

/** Something to type as part of a form, which sends it together with the rest. */
defineProps<{
  label: string
  field?: string
  problem?: Problem | null
  hideLabel?: boolean
  placeholder?: string
  help?: string
  unit?: string
  words?: boolean
  required?: boolean
  type?: 'text' | 'password'
  autocomplete?: string
  most?: number
}>()
const emit = defineEmits<{ escape: [] }>()
const text = defineModel<string>({ required: true })
</script>

<template>
  <Field
    v-slot="{ id }"
    :label="label"
    :hide-label="hideLabel ?? false"
    :field="field ?? ''"
    :help="help ?? ''"
    :problem="problem ?? null"
    :required="required ?? false"
    @mend="text = $event"
  >
    <ElInput
      :id="id"
      v-model="text"
      :class="{ figure: !words }"
      :type="type ?? 'text'"
      :autocomplete="autocomplete ?? 'off'"
      :placeholder="placeholder ?? ''"
      :maxlength="most"
      @keydown.esc="emit('escape')"
    >
      <template v-if="unit" #suffix>{{ unit }}</template>
    </ElInput>
  </Field>
</template>
