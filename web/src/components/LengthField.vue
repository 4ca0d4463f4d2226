<script setup lang="ts">
import { computed, ref, watch } from 'vue'

import { useSay } from '../composables/useSay'
import { useTried } from '../composables/useTried'
import TextField from '../kit/TextField.vue'
import { useJob } from '../stores/job'
import { useSettings } from '../stores/settings'

/** One length of the open job to type, with the job's problem at its own field; what would come of it is said meanwhile. */
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
const say = useSay()
const settings = useSettings()
const { tried, ask, forget, outcome, valueAt, problemAt } = useTried()
const problem = computed(() => job.problemAt(props.field))
const typing = ref(false)
watch(() => props.text, done)

function draft(text: string): void {
  typing.value = text.trim() !== '' && text !== props.text
  if (typing.value) ask(props.field, text)
  else forget()
}
function done(): void {
  typing.value = false
  forget()
}

const shown = computed(() => {
  const value = valueAt(props.field)
  if (value === undefined) return ''
  return props.plain ? say.number(value, 4, 0) : `${say.length(value)} ${say.unit}`
})
</script>

<template>
  <div>
    <TextField
      :field="field"
      :label="label"
      :text="text"
      :hide-label="hideLabel ?? false"
      :placeholder="placeholder ?? ''"
      :help="help ?? ''"
      :unit="plain ? '' : settings.unit"
      :problem="problem"
      @draft="draft"
      @commit="(done(), emit('commit', $event))"
      @cancel="(done(), emit('cancel'))"
      @clear="job.problem = null"
    />
    <p v-if="typing && tried && !problem" class="small second outcome" role="status">
      <template v-if="problemAt(field)">
        <b class="bad">{{ say.sentence(problemAt(field)!.why) }}</b> {{ say.sentence(problemAt(field)!.fix) }}
      </template>
      <template v-else>
        <b v-if="shown">= {{ shown }}</b>
        <span v-for="one in outcome()" :key="one"> · {{ one }}</span>
        · Enter keeps it
      </template>
    </p>
  </div>
</template>

<style scoped>
.outcome b {
  color: var(--deep);
}
.outcome .bad {
  color: var(--bad);
}
</style>
