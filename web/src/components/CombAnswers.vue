<script setup lang="ts">
import { computed } from 'vue'

import type { Problem } from '../api/client'
import { useSay } from '../composables/useSay'
import { optionsOf } from '../kit/options'
import PickField from '../kit/PickField.vue'
import ProblemNote from './ProblemNote.vue'

/** How each pair of a comb felt: a row a pair, tightest first, a column a feel. Arrow keys go along a row. */
const props = defineProps<{
  clearances: readonly number[]
  feels: readonly string[]
  answers: readonly string[]
  problem: Problem | null
}>()
const emit = defineEmits<{ answer: [index: number, feel: string] }>()
const say = useSay()
const options = computed(() => [...optionsOf(props.feels), { value: '', label: 'not tried' }])
const problemAt = (index: number) => (props.problem?.field === `answers[${index}]` ? props.problem : null)
</script>

<template>
  <div class="wide">
    <table>
      <thead>
        <tr class="small second">
          <th scope="col">Pair</th>
          <th scope="col">Clearance, {{ say.unit }}</th>
          <th scope="col">How it felt</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="(clearance, i) in clearances" :key="i" :class="{ wrong: problemAt(i) }">
          <th scope="row" class="figure">{{ i + 1 }}</th>
          <td class="figure second">{{ say.signed(clearance) }}</td>
          <td>
            <PickField
              hide-label
              :label="`Pair ${i + 1}`"
              :field="`answers[${i}]`"
              :options="options"
              :model-value="answers[i] ?? ''"
              :problem="problemAt(i)"
              @update:model-value="emit('answer', i, $event)"
            />
          </td>
        </tr>
      </tbody>
    </table>
  </div>
  <ProblemNote v-if="problem?.field === 'answers'" :problem="problem" />
</template>

<style scoped>
.wide {
  overflow-x: auto;
}
table {
  border-collapse: collapse;
}
th,
td {
  padding: 2px 14px 2px 0;
  font-weight: 400;
  text-align: left;
}
tbody tr {
  border-top: 1px solid var(--line);
}
.wrong {
  background: var(--bad-wash);
}
</style>
