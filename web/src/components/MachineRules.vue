<script setup lang="ts">
import { ref } from 'vue'

import type { Problem } from '../api/client'
import ChoiceField from '../kit/ChoiceField.vue'
import type { Option } from '../kit/options'
import TextField from '../kit/TextField.vue'
import type { Rules } from '../limits'

/** On which machines a board, or all of a kind, is never cut, and why. A rule without its reason is not kept. */
const props = defineProps<{
  own: Rules
  usual: Rules
  problemAt: (field: string) => Problem | null
}>()
const emit = defineEmits<{ change: [rules: Rules] }>()

const MACHINES = ['laser', 'router'] as const
type On = (typeof MACHINES)[number]
type Word = 'usual' | 'never' | 'may'

/** Chosen, and waiting for its reason. */
const begun = ref<Partial<Record<On, Word>>>({})
const wordOf = (on: On): Word =>
  begun.value[on] ?? (props.own[on] ? (props.own[on].never ? 'never' : 'may') : 'usual')
const options = (on: On): Option<Word>[] => [
  { value: 'usual', label: props.usual[on]?.never ? 'Never, as usual for its kind' : 'May be cut, as usual for its kind' },
  { value: 'never', label: 'Never' },
  { value: 'may', label: 'May be cut' },
] // prettier-ignore
/** Of what is kept: what is begun has none yet, and why it was never cut is no reason to cut it. */
const reasonOf = (on: On) =>
  begun.value[on] ? '' : ((wordOf(on) === 'usual' ? props.usual[on] : props.own[on])?.reason ?? '')

function choose(on: On, word: Word): void {
  begun.value = { ...begun.value, [on]: word === 'usual' ? undefined : word }
  if (word === 'usual') emit('change', { ...props.own, [on]: null })
}

function say(on: On, reason: string): void {
  emit('change', { ...props.own, [on]: { never: wordOf(on) === 'never', reason } })
  begun.value = { ...begun.value, [on]: undefined }
}
</script>

<template>
  <div class="rules">
    <div v-for="on in MACHINES" :key="on" class="rule">
      <ChoiceField
        :label="`On a ${on}`"
        :options="options(on)"
        :model-value="wordOf(on)"
        @update:model-value="choose(on, $event)"
      />
      <TextField
        v-if="wordOf(on) !== 'usual'"
        :field="`limits.${on}`"
        label="Because"
        words
        :text="reasonOf(on)"
        placeholder="what was found out, and by whom"
        :problem="problemAt(`limits.${on}`)"
        @commit="say(on, $event)"
      />
      <p v-else-if="reasonOf(on)" class="small second">Because {{ reasonOf(on) }}.</p>
    </div>
  </div>
</template>

<style scoped>
.rules,
.rule {
  display: grid;
  gap: 10px;
}
.rule {
  gap: 6px;
}
</style>
