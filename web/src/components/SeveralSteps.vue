<script setup lang="ts">
import { computed } from 'vue'

import type { Part } from '../api/client'
import { useActs } from '../composables/useActs'
import type { usePlacing } from '../composables/usePlacing'
import { useJob } from '../stores/job'
import { useSettings } from '../stores/settings'
import ActButtons from './ActButtons.vue'

/** Several steps at once: what can be done with all of them, brought in line, spread evenly. */
const props = defineProps<{ part: Part; placing: ReturnType<typeof usePlacing> }>()
const job = useJob()
const settings = useSettings()
const acts = useActs()

const steps = computed(() => props.part.steps.filter(({ id }) => job.steps.includes(id)))
const SIDES = [
  ['left', 'left sides'],
  ['centre', 'centres across'],
  ['right', 'right sides'],
  ['bottom', 'lower sides'],
  ['middle', 'centres up'],
  ['top', 'upper sides'],
] as const
const base = () => ({ part: props.part.id, steps: [...job.steps], unit: settings.unit })
</script>

<template>
  <section class="several" aria-label="Several steps">
    <h2>{{ steps.length }} steps selected</h2>
    <ActButtons :acts="acts.ofSteps(part, steps)" />
    <p class="small second">In line with the first one, by</p>
    <p class="acts">
      <ElButton
        v-for="[side, words] in SIDES"
        :key="side"
        link
        size="small"
        @click="placing.ask({ act: 'align', side, ...base() })"
        >{{ words }}</ElButton
      >
    </p>
    <p v-if="steps.length > 2" class="acts">
      <span class="small second">Equal gaps</span>
      <ElButton link size="small" @click="placing.ask({ act: 'spread', axis: 'x', ...base() })"
        >across</ElButton
      >
      <ElButton link size="small" @click="placing.ask({ act: 'spread', axis: 'y', ...base() })">up</ElButton>
    </p>
    <p v-if="job.problem?.field === 'steps'" class="small bad" data-field="steps">
      {{ job.problem.why }} {{ job.problem.fix }}
    </p>
  </section>
</template>

<style scoped>
.several {
  display: grid;
  gap: 4px;
  padding: 8px 18px;
  background: var(--deep-wash);
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 10px;
}
</style>
