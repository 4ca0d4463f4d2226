<script setup lang="ts">
import { computed } from 'vue'

import { useSay } from '../composables/useSay'
import { optionsOf } from '../kit/options'
import PickField from '../kit/PickField.vue'
import { useJob } from '../stores/job'
import LengthField from './LengthField.vue'

/** The recipe's questions that are no dimension: choices, counts, and lengths that may stay empty. */
const job = useJob()
const say = useSay()
const named = computed(() => new Set(job.design!.lengths.map(({ name }) => name)))
const rest = computed(() => job.design!.answers.filter(({ setting }) => !named.value.has(setting.name)))
</script>

<template>
  <div v-for="{ setting, typed, unit } in rest" :key="setting.name" class="setting">
    <PickField
      v-if="setting.kind === 'choice'"
      :label="setting.title"
      :options="optionsOf(setting.choices)"
      :model-value="typed"
      :help="setting.help"
      :problem="job.problemAt(`answers/${setting.name}`)"
      @update:model-value="job.put(`answers/${setting.name}`, $event)"
    />
    <LengthField
      v-else
      :field="`answers/${setting.name}`"
      :label="setting.title"
      :text="typed ? say.edit(typed, unit) : ''"
      :plain="setting.kind !== 'length'"
      :placeholder="setting.kind === 'length' ? 'by thickness' : ''"
      :help="setting.help"
      @commit="job.put(`answers/${setting.name}`, $event)"
    />
  </div>
</template>

<style scoped>
.setting {
  padding: 8px 18px 8px 29px;
  border-top: 1px solid var(--line);
}
</style>
