<script setup lang="ts">
import { computed, ref, useTemplateRef } from 'vue'

import type { Operation, ProfileValues } from '../api/client'
import { useSay } from '../composables/useSay'
import ChoiceWord from '../kit/ChoiceWord.vue'
import type { Option } from '../kit/options'
import WordInput from '../kit/WordInput.vue'

/** One kind of work of a file: its number and stroke, what the machine was set to, how long it takes, and a sentence. */
const props = defineProps<{
  operation: Operation
  index: number
  last: boolean
  paths: number
  openings: number
  seconds: number
  setting: string
  note: string
  layer: ProfileValues['layers'][string]
  engrave: ProfileValues['engrave']
  hatch: string
  wrong: boolean
  before: Operation | null
  after: Operation | null
}>()
const emit = defineEmits<{
  layer: [values: Partial<ProfileValues['layers'][string]>]
  engrave: [how: ProfileValues['engrave']]
  hatch: [text: string]
  move: [to: Operation]
  drop: [dragged: Operation]
  look: [operation: Operation | null]
}>()
const say = useSay()
const disc = useTemplateRef('disc')
const over = ref(false)

const lead = computed(() => (props.index === 0 ? 'First' : props.last ? 'Last,' : 'Then'))
const many = (n: number, one: string, more = `${one}s`) => `${n} ${n === 1 ? one : more}`
const words = computed(() => {
  const { operation, paths, openings } = props
  if (operation === 'cut') {
    const outlines = paths - openings
    const what = [openings && many(openings, 'opening'), outlines && many(outlines, 'outline')]
    const rule = openings && outlines ? ', openings before the outline around them' : ''
    return `cut ${what.filter(Boolean).join(' and ')}${rule}`
  }
  if (operation === 'reference') return `draw ${many(paths, 'line')} for reference, not to be cut`
  const acts = { engrave: 'engrave', score: 'score', fold: 'score', pocket: 'clear' }
  const things = {
    engrave: props.engrave === 'hatch' ? 'hatch line' : 'area',
    score: 'line',
    fold: 'fold line',
    pocket: 'pocket',
  }
  return `${acts[operation]} ${many(paths, things[operation])}`
})
const HOW: Option<ProfileValues['engrave']>[] = [
  { value: 'outline', label: 'as outlines' },
  { value: 'filled', label: 'filled', detail: 'SVG and PDF' },
  { value: 'hatch', label: 'as hatch' },
]

function key(to: Operation | null): void {
  if (!to) return
  emit('move', to)
  requestAnimationFrame(() => disc.value?.focus())
}

function drop(event: DragEvent): void {
  over.value = false
  const dragged = event.dataTransfer?.getData('text/operation')
  if (dragged) emit('drop', dragged as Operation)
}
</script>

<template>
  <li
    :class="{ over }"
    @mouseenter="emit('look', operation)"
    @mouseleave="emit('look', null)"
    @focusin="emit('look', operation)"
    @focusout="emit('look', null)"
    @dragover.prevent="over = true"
    @dragleave="over = false"
    @drop.prevent="drop"
  >
    <p class="head">
      <span
        ref="disc"
        class="disc figure"
        tabindex="0"
        role="button"
        draggable="true"
        :aria-label="`${index + 1}: ${words}. Alt with Up or Down moves it.`"
        @keydown.alt.up.prevent="key(before)"
        @keydown.alt.down.prevent="key(after)"
        @dragstart="$event.dataTransfer?.setData('text/operation', operation)"
        >{{ index + 1 }}</span
      >
      <i class="swatch" :class="operation" aria-hidden="true" />
      <span class="setting">{{ say.sentence(setting) || 'no setting known' }}</span>
      <span v-if="operation !== 'reference'" class="time figure">= {{ say.time(seconds) }}</span>
    </p>
    <p>
      {{ lead }} {{ words
      }}<template v-if="operation === 'engrave'"
        >,
        <ChoiceWord
          label="Engraved areas"
          :options="HOW"
          :model-value="engrave"
          @update:model-value="emit('engrave', $event)"
        /><template v-if="engrave === 'hatch'">
          <WordInput
            label="Hatch lines apart"
            field="hatch_mm"
            figure
            :text="hatch"
            @commit="emit('hatch', $event)"
          />
          {{ say.unit }} apart</template
        ></template
      >, on layer
      <WordInput
        :label="`Layer for ${operation}`"
        :field="`layers/${operation}/name`"
        :text="layer.name"
        :wrong="wrong"
        @commit="emit('layer', { name: $event })"
      />
      <input
        type="color"
        :aria-label="`Colour for ${operation}`"
        :value="layer.colour"
        @change="emit('layer', { colour: ($event.target as HTMLInputElement).value })"
      />
      <ElButton link size="small" @click="emit('layer', { include: false })">leave out</ElButton>
    </p>
    <p v-if="note" class="small ochre">That was {{ note }}: the time does not follow it.</p>
  </li>
</template>

<style scoped>
li {
  padding: 8px 18px;
  border-bottom: 1px solid var(--line);
  line-height: 1.6;
}
.over {
  background: var(--deep-wash);
}
.head {
  display: flex;
  align-items: center;
  gap: 9px;
}
.disc {
  display: inline-grid;
  place-items: center;
  flex: none;
  width: 26px;
  height: 26px;
  border: 1.5px solid var(--ink);
  border-radius: 50%;
  background: var(--sheet);
  cursor: grab;
}
li:hover .disc {
  border-color: var(--deep);
  color: var(--deep);
}
.setting {
  color: var(--second);
}
.time {
  margin-left: auto;
  flex: none;
}
input[type='color'] {
  width: 1.8rem;
  height: 24px;
  padding: 1px;
  border: 1px solid var(--edge);
  background: none;
  vertical-align: middle;
}
</style>
