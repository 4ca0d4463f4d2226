<script setup lang="ts">
import type { Change } from '../api/client'
import { useSay } from '../composables/useSay'

/** Figures before and after, parts below the rest. */
defineProps<{ changes: readonly Change[] }>()
const say = useSay()

function show(value: number | null, word: string, kind: Change['kind']): string {
  if (value === null) return word
  return kind === 'length' ? say.length(value) : say.number(value, 3)
}
</script>

<template>
  <ul class="small">
    <li v-for="change in changes" :key="`${change.subject}/${change.key}`">
      <span>{{ change.about }} {{ change.title }}</span>
      <span class="figure second">{{ show(change.before, change.word_before, change.kind) }}</span>
      <span class="figure">→ {{ show(change.after, change.word_after, change.kind) }}</span>
    </li>
  </ul>
</template>

<style scoped>
ul {
  max-height: 260px;
  overflow-y: auto;
}
li {
  display: grid;
  grid-template-columns: 1fr auto 72px;
  gap: 6px;
}
li > :last-child {
  text-align: right;
}
</style>
