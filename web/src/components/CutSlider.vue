<script setup lang="ts">
import { useElementSize, useIntervalFn } from '@vueuse/core'
import { computed, useTemplateRef, watch } from 'vue'

import type { Proof } from '../api/client'
import { textWidth } from '../composables/textWidth'

/** The paths of a sheet in the order of the file: drag to any of them, or watch them one by one. */
const props = defineProps<{ paths: Proof['paths'][string]; titles: ReadonlyMap<string, string> }>()
/** How many paths are cut; all of them is the sheet as it comes out. */
const done = defineModel<number>({ required: true })
const ALL_MS = 9000
const SLOWEST_MS = 700

const step = computed(() => Math.min(SLOWEST_MS, ALL_MS / Math.max(props.paths.length, 1)))
const { isActive, pause, resume } = useIntervalFn(
  () => {
    const by = Math.max(1, Math.round(50 / step.value))
    done.value = Math.min(done.value + by, props.paths.length)
    if (done.value === props.paths.length) pause()
  },
  computed(() => Math.max(step.value, 50)),
  { immediate: false },
)

watch(
  () => props.paths,
  () => {
    pause()
    done.value = props.paths.length
  },
)

function play(): void {
  if (isActive.value) return pause()
  if (done.value === props.paths.length) done.value = 0
  resume()
}

/** Where one operation or kind of cut gives way to the next. */
const kinds = computed(() => {
  const found: { words: string; from: number; count: number }[] = []
  props.paths.forEach((path, i) => {
    const words = path.operation === 'cut' ? (path.inner ? 'openings' : 'outlines') : path.operation
    const last = found.at(-1)
    if (last?.words === words) last.count++
    else found.push({ words, from: i, count: 1 })
  })
  return found
})
const line = useTemplateRef('line')
const { width } = useElementSize(line)
/** Labels only where they have room beside the one before. */
const labelled = computed(() => {
  let free = 0
  return kinds.value.filter(({ words, from, count }) => {
    const middle = (width.value * (from + count / 2)) / props.paths.length
    const half = textWidth(words) / 2
    if (middle - half < free || middle + half > width.value + half) return false
    free = middle + half + 8
    return true
  })
})
const now = computed(() => {
  const path = props.paths[done.value - 1]
  if (!path || done.value === props.paths.length) return `${props.paths.length} paths`
  return `path ${done.value} of ${props.paths.length}: ${path.operation}${path.part ? `, ${props.titles.get(path.part) ?? path.part}` : ''}`
})
</script>

<template>
  <div v-if="paths.length" class="watch">
    <b>Watch it being cut</b>
    <ElButton size="small" :aria-label="isActive ? 'Stop' : 'Play'" @click="play">{{
      isActive ? '❚❚' : '▶'
    }}</ElButton>
    <div ref="line" class="line">
      <ElSlider
        v-model="done"
        :min="0"
        :max="paths.length"
        size="small"
        aria-label="Paths cut"
        :format-tooltip="() => now"
        @input="pause"
      />
      <div class="kinds small second" aria-hidden="true">
        <span
          v-for="kind in labelled"
          :key="kind.from"
          :style="{ left: `${(100 * (kind.from + kind.count / 2)) / paths.length}%` }"
          >{{ kind.words }}</span
        >
      </div>
    </div>
    <span class="small second now">{{ now }}</span>
  </div>
</template>

<style scoped>
.watch {
  display: grid;
  grid-template-columns: auto auto minmax(8rem, 1fr) 13rem;
  align-items: center;
  gap: 4px 14px;
  padding: 4px 22px 8px;
  border-top: 1px solid var(--line);
}
.line {
  display: grid;
}
.kinds {
  position: relative;
  height: 1.1rem;
}
.kinds span {
  position: absolute;
  transform: translateX(-50%);
}
@media (max-width: 860px) {
  .watch {
    grid-template-columns: auto 1fr;
  }
  .line,
  .now {
    grid-column: 1 / -1;
  }
}
</style>
