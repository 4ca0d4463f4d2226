<script setup lang="ts">
import type { useTestPiece } from '../composables/useTestPiece'
import { READINGS_OF } from '../composables/useTestPiece'
import type { Way } from '../api/client'
import { useSay } from '../composables/useSay'
import { useChoices } from '../stores/choices'
import CombAnswers from './CombAnswers.vue'
import ReadingsList from './ReadingsList.vue'

/** What is read off a piece that was cut: lengths by caliper, or how each pair of a comb feels. */
const { test, asked } = defineProps<{
  test: ReturnType<typeof useTestPiece>
  asked: { stock: number; machine: number; way: Way }
}>()
const say = useSay()
const choices = useChoices()
const { draft, piece, measured } = test

const TITLES = {
  row: 'The row, pushed together',
  hole: 'The hole, across its flats',
  plug: 'The plug, across its flats',
}
</script>

<template>
  <CombAnswers
    v-if="asked.way === 'comb'"
    :clearances="piece?.clearances ?? []"
    :feels="choices.choices?.feels ?? []"
    :answers="draft.answers"
    :problem="test.problemAt('answers')"
    @answer="(index, feel) => test.answer(index, feel)"
  />
  <div class="lists">
    <section v-for="name in READINGS_OF[asked.way]" :key="name">
      <h2>{{ TITLES[name] }}, {{ say.unit }}</h2>
      <ReadingsList
        :key="`${asked.stock}/${asked.machine}`"
        :values="measured[name]"
        :typed="draft[name]"
        :problem="test.problemAt(name)"
        :field="name"
        @commit="test.measure(name, $event)"
        @clear="test.measure(name, draft[name])"
      />
    </section>
  </div>
</template>

<style scoped>
.lists {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(14rem, 20rem));
  gap: 22px;
  margin-top: 10px;
}
</style>
