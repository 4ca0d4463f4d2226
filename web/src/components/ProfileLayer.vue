<script setup lang="ts">
import { ref } from 'vue'

import type { Operation, ProfileValues } from '../api/client'
import TextField from '../kit/TextField.vue'

/** One kind of work of a file as a sentence: what is done, drawn with its own stroke, on which layer and in what colour, or
 * that it is left out. Dragged, or moved by Alt with an arrow key. */
const props = defineProps<{
  operation: Operation
  layer: ProfileValues['layers'][string]
  index: number
  count: number
}>()
const emit = defineEmits<{
  change: [values: Partial<ProfileValues['layers'][string]>]
  move: [operation: Operation, to: number]
}>()

const ACTS: Record<Operation, string> = {
  engrave: 'engrave areas',
  score: 'score, not through',
  fold: 'score fold lines',
  pocket: 'clear pockets',
  cut: 'cut through',
  reference: 'draw what is for reference only',
}
const row = ref<HTMLElement | null>(null)
const over = ref(false)

function moveBy(by: -1 | 1): void {
  const to = props.index + by
  if (to < 0 || to >= props.count) return
  emit('move', props.operation, to)
  requestAnimationFrame(() => row.value?.focus())
}

function drop(event: DragEvent): void {
  over.value = false
  const dragged = event.dataTransfer?.getData('text/operation')
  if (dragged) emit('move', dragged as Operation, props.index)
}
</script>

<template>
  <li
    ref="row"
    :class="{ over, out: !layer.include }"
    tabindex="0"
    draggable="true"
    :aria-label="`${index + 1}: ${ACTS[operation]}`"
    @keydown.alt.up.prevent="moveBy(-1)"
    @keydown.alt.down.prevent="moveBy(1)"
    @dragstart="$event.dataTransfer?.setData('text/operation', operation)"
    @dragover.prevent="over = true"
    @dragleave="over = false"
    @drop.prevent="drop"
  >
    <span class="figure number">{{ index + 1 }}</span>
    <i class="swatch" :class="operation" aria-hidden="true" />
    <span class="words">
      {{ index ? 'Then' : 'First' }} {{ ACTS[operation] }}<template v-if="layer.include">, on layer</template
      ><template v-else>: left out of the file.</template>
    </span>
    <template v-if="layer.include">
      <TextField
        class="layer"
        hide-label
        words
        :field="`layers/${operation}/name`"
        :label="`Layer for ${operation}`"
        :text="layer.name"
        @commit="emit('change', { name: $event })"
      />
      <span class="second">in</span>
      <input
        type="color"
        :aria-label="`Colour for ${operation}`"
        :value="layer.colour"
        @change="emit('change', { colour: ($event.target as HTMLInputElement).value })"
      />
    </template>
    <ElButton link size="small" class="end" @click="emit('change', { include: !layer.include })">
      {{ layer.include ? 'Leave out' : 'Put in' }}
    </ElButton>
  </li>
</template>

<style scoped>
li {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 8px;
  padding: 4px 6px;
  border-top: 1px solid var(--line);
  cursor: grab;
}
.over {
  border-top-color: var(--deep);
  background: var(--deep-wash);
}
.out .words {
  color: var(--second);
}
.number {
  width: 1.2rem;
}
.layer {
  width: 9rem;
}
.end {
  margin-left: auto;
}
input {
  width: 2.2rem;
  height: 1.6rem;
  padding: 1px;
  border: 1px solid var(--edge);
  background: none;
}
</style>
