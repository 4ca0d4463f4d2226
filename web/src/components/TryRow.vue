<script setup lang="ts">
import type { Trial } from '../api/client'

/** One figure of every trial. */
defineProps<{ title: string; trials: readonly Trial[]; words?: boolean }>()
defineSlots<{ default(scope: { trial: Trial; index: number }): unknown }>()
</script>

<template>
  <tr>
    <th scope="row">{{ title }}</th>
    <td v-for="(trial, index) in trials" :key="index" :class="{ words }">
      <slot :trial="trial" :index="index" />
    </td>
  </tr>
</template>

<style scoped>
th,
td {
  padding: 3px 8px;
  text-align: right;
  vertical-align: baseline;
  overflow-wrap: break-word;
  border-top: 1px solid var(--line);
}
th {
  padding-left: 0;
  text-align: left;
  font: inherit;
  font-family: var(--words);
  color: var(--second);
}
th::first-letter {
  text-transform: uppercase;
}
.words {
  font-family: var(--words);
}
.words :slotted(span) {
  display: block;
}
.words :slotted(.problem) {
  text-align: left;
}
</style>
