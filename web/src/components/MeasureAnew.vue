<script setup lang="ts">
import { shallowRef } from 'vue'

import { api, type Readings } from '../api/client'
import { oneByOne } from '../line'
import { useProblem } from '../composables/useProblem'
import { useSay } from '../composables/useSay'
import ReadingsList from './ReadingsList.vue'

/** A board measured anew: readings are looked at as they come, and kept when they are good. */
const props = defineProps<{ keep: (readings: string[]) => Promise<void> }>()
const emit = defineEmits<{ look: [readings: Readings | null]; close: [] }>()
const say = useSay()
const read = shallowRef<Readings | null>(null)
const { problem, tell } = useProblem()

/** An older answer never comes last, and only what was looked at is kept. */
const inLine = oneByOne()

const look = (texts: string[]) =>
  inLine(() =>
    tell(async () => {
      read.value = texts.length ? await api.lookAtReadings(texts, say.unit) : null
      emit('look', read.value)
    }),
  )

const keepThem = () =>
  inLine(async () => {
    if (problem.value || !read.value) return
    const readings = read.value.values.map((mm) => `${mm} mm`)
    await tell(async () => {
      await props.keep(readings)
      emit('close')
    })
  })
</script>

<template>
  <section class="anew">
    <h2>New readings, {{ say.unit }}</h2>
    <p class="small second">
      Measure five places, edges too, with the jaws flat on the board. Enter goes to the next reading; a list
      may be pasted, in mm or inches.
    </p>
    <ReadingsList :values="read?.values ?? []" :problem="problem" @commit="look" @clear="problem = null" />
    <p>
      <ElButton type="primary" :disabled="!read || !!problem" @click="keepThem"
        >Save this measurement</ElButton
      >
      <ElButton link @click="emit('close')">Cancel</ElButton>
    </p>
  </section>
</template>

<style scoped>
.anew {
  display: grid;
  justify-items: start;
  gap: 8px;
  margin-top: 12px;
  padding: 12px 16px;
  border: 1px solid var(--ink);
  border-top: 3px solid var(--deep);
  background: var(--panel);
}
.anew h2 {
  margin: 0;
}
</style>
