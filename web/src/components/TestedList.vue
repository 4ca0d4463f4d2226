<script setup lang="ts">
import type { Tested } from '../api/client'
import { useSay } from '../composables/useSay'
import OkTick from './OkTick.vue'

/** What was tested, how, and what came of it. */
defineProps<{ tests: readonly Tested[]; provided: string; notLookedAt: readonly string[] }>()
defineEmits<{ pick: [test: Tested] }>()
const say = useSay()
const MARKS = { bad: '✕', look: '!', none: '–', ok: '' }
const WORDS = { bad: 'not as wanted', look: 'wants a look', none: 'nothing to test', ok: '' }
</script>

<template>
  <section>
    <h2>What was tested</h2>
    <ul>
      <li v-for="test in tests" :key="test.key" :class="test.state">
        <OkTick v-if="test.state === 'ok'" :ok="true" :provided="say.sentence(provided)" />
        <b v-else class="mark" role="img" :aria-label="WORDS[test.state]">{{ MARKS[test.state] }}</b>
        <button type="button" @click="$emit('pick', test)">{{ test.title }}</button>
        <span class="found">{{ say.sentence(test.found) }}</span>
        <span class="how small second">{{ say.sentence(test.how) }}</span>
      </li>
    </ul>
    <p class="small not-looked">
      <b>Not looked at:</b> <span class="second">{{ notLookedAt.join('; ') }}.</span>
    </p>
  </section>
</template>

<style scoped>
h2 {
  padding: 10px 18px 4px;
}
li {
  display: grid;
  grid-template-columns: 24px auto 1fr;
  align-items: baseline;
  gap: 0 6px;
  padding: 4px 18px 4px 10px;
  border-top: 1px solid var(--line);
}
.mark {
  text-align: center;
}
.bad .mark,
.bad .found {
  color: var(--bad);
}
.look .mark,
.look .found {
  color: var(--ochre-text);
}
button {
  min-height: 24px;
  padding: 0;
  border: 0;
  background: none;
  color: inherit;
  font-weight: 600;
  text-align: left;
  cursor: pointer;
}
button:hover {
  color: var(--deep);
  text-decoration: underline;
}
.found {
  text-align: right;
}
.how {
  grid-column: 2 / -1;
}
.not-looked {
  padding: 10px 18px;
  border-top: 1px solid var(--line);
}
</style>
