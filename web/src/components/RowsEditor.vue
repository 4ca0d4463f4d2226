<script setup lang="ts">
import { computed } from 'vue'

import type { Problem } from '../api/client'
import ProblemNote from './ProblemNote.vue'
import TextField from './TextField.vue'

/** A short list of things with a few values each: change one in place, take a row out, add one below. */
export interface Column {
  name: string
  label: string
  words?: boolean
  /** On a line of its own, below the others of its row. */
  below?: boolean
}
const props = defineProps<{
  columns: readonly Column[]
  rows: readonly Record<string, string>[]
  field: string
  add: string
  problemAt: (field: string) => Problem | null
}>()
const emit = defineEmits<{ commit: [rows: Record<string, string>[]] }>()
const beside = computed(() => props.columns.filter(({ below }) => !below))
const below = computed(() => props.columns.filter((column) => column.below))
const draft = defineModel<Record<string, string> | null>('draft', { default: null })

function change(index: number, name: string, text: string): void {
  emit(
    'commit',
    props.rows.map((row, i) => (i === index ? { ...row, [name]: text } : { ...row })),
  )
}

function remove(index: number): void {
  emit(
    'commit',
    props.rows.filter((_, i) => i !== index).map((row) => ({ ...row })),
  )
}

/** A new row is sent once nothing of it is empty but what may be. */
function keep(): void {
  if (draft.value) emit('commit', [...props.rows.map((row) => ({ ...row })), { ...draft.value }])
}
</script>

<template>
  <div
    class="rows"
    :style="{
      '--columns': beside.map(({ words }) => (words ? 'minmax(0, 1.9fr)' : 'minmax(0, 1fr)')).join(' '),
    }"
  >
    <template v-if="rows.length || draft">
      <span v-for="{ name, label } in beside" :key="name" class="small second">{{ label }}</span>
      <span />
    </template>
    <template v-for="(row, index) in rows" :key="index">
      <template v-for="(columnsOfLine, line) in [beside, below]" :key="line">
        <TextField
          v-for="{ name, label, words } in columnsOfLine"
          :key="name"
          :class="{ all: line }"
          :field="`${field}[${index}].${name}`"
          :label="`${label}, row ${index + 1}`"
          hide-label
          :words="words ?? false"
          :text="row[name] ?? ''"
          @commit="change(index, name, $event)"
        />
        <button
          v-if="!line"
          class="link"
          :aria-label="`remove row ${index + 1}`"
          title="remove"
          @click="remove(index)"
        >
          ×
        </button>
      </template>
      <ProblemNote
        v-if="problemAt(`${field}[${index}]`)"
        class="all"
        :problem="problemAt(`${field}[${index}]`)!"
      />
    </template>
    <template v-if="draft">
      <template v-for="(columnsOfLine, line) in [beside, below]" :key="line">
        <input
          v-for="{ name, label, words } in columnsOfLine"
          :key="name"
          v-model="draft[name]"
          class="boxed"
          :class="{ figure: !words, all: line }"
          :aria-label="`${label}, new row`"
          :placeholder="line ? label : ''"
          @keydown.enter="keep"
          @keydown.esc="draft = null"
        />
        <button v-if="!line" class="link small" @click="keep">keep</button>
      </template>
      <ProblemNote
        v-if="problemAt(`${field}[${rows.length}]`)"
        class="all"
        :problem="problemAt(`${field}[${rows.length}]`)!"
      />
    </template>
    <button
      v-else
      class="link small all"
      @click="draft = Object.fromEntries(columns.map(({ name }) => [name, '']))"
    >
      {{ add }}
    </button>
  </div>
</template>

<style scoped>
.rows {
  display: grid;
  grid-template-columns: var(--columns) auto;
  gap: 3px 5px;
  align-items: center;
}
.all {
  grid-column: 1 / -1;
}
button.all {
  justify-self: start;
}
.boxed {
  padding-inline: 5px;
}
.rows :deep(.boxed) {
  padding-inline: 5px;
}
</style>
