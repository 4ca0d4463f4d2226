<script setup lang="ts">
import { computed } from 'vue'

import type { FieldInfo } from '../api/client'
import { useSay } from '../composables/useSay'
import ChoiceField from '../kit/ChoiceField.vue'
import FlagField from '../kit/FlagField.vue'
import { optionsOf, type Option } from '../kit/options'
import TextField from '../kit/TextField.vue'
import { typed } from '../steps'
import { useJob } from '../stores/job'
import LengthField from './LengthField.vue'

/** One field of a step, as the core describes it; an answer is put at its path. */
const props = defineProps<{
  info: FieldInfo
  path: string
  value: unknown
  choices?: readonly Option[]
  /** What it is called here, if not as everywhere. */
  label?: string
  /** Where several answers are sent together. */
  send?: (info: FieldInfo, value: unknown) => unknown
}>()
const job = useJob()
const say = useSay()
const field = computed(() => `${props.path}/${props.info.name}`)
const title = computed(() => props.label || props.info.title)
const problem = computed(() => job.problemAt(field.value))
const options = computed(() => props.choices ?? optionsOf(props.info.choices ?? []))
const put = (value: unknown) => (props.send ? props.send(props.info, value) : job.put(field.value, value))
/** What a place can be measured from: of the selected part, whatever steps offer. */
const ofs = computed<Option[]>(() => [
  { value: '', label: 'the part’s own end' },
  ...(job.part?.lines ?? []).map(({ name, says }) => ({ value: name, label: says, group: 'Edges' })),
  ...(job.part?.points ?? []).map(({ name, says }) => ({
    value: name,
    label: says,
    group: 'Corners, middles, centres',
  })),
])
const text = computed(() => {
  const { text: shown, unit } = typed(props.value)
  return shown ? say.edit(shown, unit) : ''
})
</script>

<template>
  <LengthField
    v-if="info.kind === 'length'"
    :field="field"
    :label="title"
    :text="text"
    :placeholder="info.help"
    @commit="put($event)"
  />
  <FlagField
    v-else-if="info.kind === 'flag'"
    class="flag"
    :label="title"
    :field="field"
    :model-value="value === true"
    :problem="problem"
    @update:model-value="put($event)"
  />
  <ChoiceField
    v-else-if="info.kind === 'choice'"
    :label="title"
    :field="field"
    :options="options"
    :model-value="String(value ?? '')"
    :problem="problem"
    @update:model-value="put($event)"
  />
  <ChoiceField
    v-else-if="info.kind === 'of'"
    :label="title"
    :field="field"
    :options="ofs"
    :model-value="String(value ?? '')"
    :problem="problem"
    @update:model-value="put($event)"
  />
  <TextField
    v-else
    :label="title"
    :field="field"
    :text="String(value ?? '')"
    :words="info.kind === 'words'"
    :placeholder="info.help"
    :problem="problem"
    @commit="put($event)"
    @clear="job.problem = null"
  />
</template>

<style scoped>
.flag {
  align-self: end;
}
</style>
