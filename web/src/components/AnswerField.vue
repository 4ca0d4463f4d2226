<script setup lang="ts">
import { computed } from 'vue'

import type { FieldInfo } from '../api/client'
import { typed } from '../steps'
import { useJob } from '../stores/job'
import { useSettings } from '../stores/settings'
import { editText } from '../units'
import LengthField from './LengthField.vue'
import ProblemNote from './ProblemNote.vue'

/** One field of a step, as the core describes it; an answer is put at its path. */
const props = defineProps<{
  info: FieldInfo
  path: string
  value: unknown
  choices?: readonly (readonly [string, string])[]
}>()
const job = useJob()
const settings = useSettings()
const field = computed(() => `${props.path}/${props.info.name}`)
const problem = computed(() => job.problemAt(field.value))
const options = computed(() => props.choices ?? (props.info.choices ?? []).map((one) => [one, one] as const))
const put = (value: unknown) => job.put(field.value, value)
const valueOf = (event: Event) => (event.target as HTMLInputElement | HTMLSelectElement).value
const text = computed(() => {
  const { text: shown, unit } = typed(props.value)
  return shown ? editText(shown, unit, settings.unit) : ''
})
</script>

<template>
  <LengthField
    v-if="info.kind === 'length'"
    :field="field"
    :label="`${info.title}, ${settings.unit}`"
    :text="text"
    :placeholder="info.help"
    @commit="put($event)"
  />
  <label v-else-if="info.kind === 'flag'" class="flag" :data-field="field">
    <input
      type="checkbox"
      :checked="value === true"
      @change="put(($event.target as HTMLInputElement).checked)"
    />
    {{ info.title }}
  </label>
  <label v-else :data-field="field">
    {{ info.title }}
    <select v-if="info.kind === 'choice'" class="boxed" :value="value" @change="put(valueOf($event))">
      <option v-for="[name, title] in options" :key="name" :value="name">{{ title }}</option>
    </select>
    <input
      v-else
      class="boxed"
      :class="{ figure: info.kind !== 'words' }"
      :value="value"
      :placeholder="info.help"
      :aria-invalid="problem ? 'true' : undefined"
      @change="put(valueOf($event))"
    />
    <ProblemNote v-if="problem" :problem="problem" />
  </label>
</template>

<style scoped>
.flag {
  display: flex;
  gap: 8px;
  align-self: end;
  padding-bottom: 6px;
}
input[type='checkbox'] {
  accent-color: var(--deep);
}
</style>
