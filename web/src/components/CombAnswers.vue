<script setup lang="ts">
import type { Problem } from '../api/client'
import { useSettings } from '../stores/settings'
import { signedText } from '../units'
import ProblemNote from './ProblemNote.vue'

/** How each pair of a comb felt: a row a pair, tightest first, a column a feel. Arrow keys go along a row. */
const props = defineProps<{
  clearances: readonly number[]
  feels: readonly string[]
  answers: readonly string[]
  problem: Problem | null
}>()
const emit = defineEmits<{ answer: [index: number, feel: string] }>()
const settings = useSettings()
const problemAt = (index: number) => (props.problem?.field === `answers[${index}]` ? props.problem : null)
</script>

<template>
  <table>
    <thead>
      <tr class="small second">
        <th scope="col">pair</th>
        <th scope="col">clearance</th>
        <th v-for="feel in feels" :key="feel" scope="col">{{ feel }}</th>
        <th scope="col">not tried</th>
      </tr>
    </thead>
    <tbody>
      <template v-for="(clearance, i) in clearances" :key="i">
        <tr :class="{ wrong: problemAt(i) }">
          <th scope="row" class="figure">{{ i + 1 }}</th>
          <td class="figure second">{{ signedText(clearance, settings.unit) }}</td>
          <td v-for="feel in [...feels, '']" :key="feel">
            <label :class="{ chosen: feel && answers[i] === feel }">
              <span class="unseen">pair {{ i + 1 }} {{ feel || 'not tried' }}</span>
              <input
                type="radio"
                :name="`answers[${i}]`"
                :data-field="`answers[${i}]`"
                :checked="(answers[i] ?? '') === feel"
                :aria-invalid="problemAt(i) ? 'true' : undefined"
                @change="emit('answer', i, feel)"
              />
            </label>
          </td>
        </tr>
        <tr v-if="problemAt(i)">
          <td :colspan="feels.length + 3"><ProblemNote :problem="problemAt(i)!" /></td>
        </tr>
      </template>
    </tbody>
  </table>
  <ProblemNote v-if="problem?.field === 'answers'" :problem="problem" />
</template>

<style scoped>
table {
  border-collapse: collapse;
}
th,
td {
  padding: 0 10px 0 0;
  font-weight: 400;
  text-align: left;
}
thead th {
  min-width: 84px;
  padding-bottom: 4px;
}
thead th:first-child {
  min-width: 40px;
}
tbody tr {
  border-top: 1px solid var(--line);
}
label {
  display: block;
  padding: 3px 8px;
  cursor: pointer;
}
label:hover {
  background: var(--panel);
}
label.chosen {
  background: var(--deep-wash);
}
input {
  width: 16px;
  height: 16px;
  margin: 0;
  accent-color: var(--deep);
  vertical-align: -3px;
}
.wrong {
  background: var(--bad-wash);
}
</style>
