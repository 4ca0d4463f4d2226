<script setup lang="ts">
import { computed } from 'vue'

import { useJob } from '../stores/job'
import { useSettings } from '../stores/settings'
import { editText } from '../units'
import LengthField from './LengthField.vue'
import ProblemNote from './ProblemNote.vue'

/** The recipe's questions that are no dimension: choices, counts, and lengths that may stay empty. */
const job = useJob()
const settings = useSettings()
const named = computed(() => new Set(job.design!.lengths.map(({ name }) => name)))
const rest = computed(() => job.design!.answers.filter(({ setting }) => !named.value.has(setting.name)))
</script>

<template>
  <div v-for="{ setting, typed, unit } in rest" :key="setting.name" class="setting">
    <template v-if="setting.kind === 'choice'">
      <span :id="`choice-${setting.name}`">{{ setting.title }}</span>
      <span class="choice" role="group" :aria-labelledby="`choice-${setting.name}`">
        <button
          v-for="choice in setting.choices"
          :key="choice"
          class="plain"
          :aria-pressed="choice === typed"
          @click="job.put(`answers/${setting.name}`, choice)"
        >
          {{ choice }}
        </button>
      </span>
    </template>
    <LengthField
      v-else
      class="length"
      :field="`answers/${setting.name}`"
      :label="setting.title"
      :text="typed ? editText(typed, unit, settings.unit) : ''"
      :placeholder="setting.kind === 'length' ? 'by thickness' : undefined"
      @commit="job.put(`answers/${setting.name}`, $event)"
    />
    <ProblemNote
      v-if="setting.kind === 'choice' && job.problemAt(`answers/${setting.name}`)"
      class="length"
      :problem="job.problemAt(`answers/${setting.name}`)!"
    />
    <span class="small second help">{{ setting.help }}</span>
  </div>
</template>

<style scoped>
.setting {
  display: grid;
  grid-template-columns: 1fr auto;
  align-items: center;
  padding: 6px 18px 6px 29px;
  border-top: 1px solid var(--line);
}
.length,
.help {
  grid-column: 1 / -1;
}
.choice {
  display: flex;
}
[aria-pressed='true'] {
  border-color: var(--deep);
  background: var(--deep-wash);
}
</style>
