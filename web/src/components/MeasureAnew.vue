<script setup lang="ts">
import { shallowRef } from 'vue'

import { api, Problem, type Readings } from '../api/client'
import { useSettings } from '../stores/settings'
import ReadingsList from './ReadingsList.vue'

/** A board measured anew: readings are looked at as they come, and kept when they are good. */
const props = defineProps<{ keep: (readings: string[]) => Promise<void> }>()
const emit = defineEmits<{ look: [readings: Readings | null]; close: [] }>()
const settings = useSettings()
const typed = shallowRef<string[]>([])
const read = shallowRef<Readings | null>(null)
const problem = shallowRef<Problem | null>(null)

async function tell(act: () => Promise<void>): Promise<void> {
  problem.value = null
  try {
    await act()
  } catch (error) {
    if (!(error instanceof Problem)) throw error
    problem.value = error
  }
}

const look = (texts: string[]) =>
  tell(async () => {
    typed.value = texts
    read.value = texts.length ? await api.lookAtReadings(texts, settings.unit) : null
    typed.value = read.value?.values.map((mm) => `${mm} mm`) ?? []
    emit('look', read.value)
  })

const keepThem = () =>
  tell(async () => {
    await props.keep(typed.value)
    emit('close')
  })
</script>

<template>
  <section class="anew">
    <h2>Measured now, in {{ settings.unit }}</h2>
    <p class="small second">
      Five places, the edges too, jaws flat on the board. Enter goes on; a list may be pasted, in mm or
      inches.
    </p>
    <ReadingsList :values="read?.values ?? []" :problem="problem" @commit="look" @clear="problem = null" />
    <p>
      <button class="strong" :disabled="!read || !!problem" @click="keepThem">Keep this measurement</button>
      <button class="link" @click="emit('close')">leave it</button>
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
