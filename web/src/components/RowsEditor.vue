<script setup lang="ts">
import { computed } from 'vue'

import type { Problem } from '../api/client'
import ProblemNote from './ProblemNote.vue'
import TextField from '../kit/TextField.vue'

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
function addRow(): void {
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
        <ElButton
          link
          v-if="!line"
          :aria-label="`Remove row ${index + 1}`"
          title="Remove"
          @click="remove(index)"
        >
          ×
        </ElButton>
      </template>
      <ProblemNote
        v-if="problemAt(`${field}[${index}]`)"
        class="all"
        :problem="problemAt(`${field}[${index}]`)!"
      />
    </template>
    <template v-if="draft">
      <template v-for="(columnsOfLine, line) in [beside, below]" :key="line">
        <ElInput
          v-for="{ name, label, words } in columnsOfLine"
          :key="name"
          v-model="draft[name]"
          :class="{ figure: !words, all: line }"
          :aria-label="`${label}, new row`"
          :placeholder="line ? label : ''"
          @keydown.enter="addRow"
          @keydown.esc="draft = null"
        />
        <ElButton link size="small" v-if="!line" @click="addRow">Add</ElButton>
      </template>
      <ProblemNote
        v-if="problemAt(`${field}[${rows.length}]`)"
        class="all"
        :problem="problemAt(`${field}[${rows.length}]`)!"
      />
    </template>
    <ElButton
      link
      size="small"
      class="all"
      v-else
      @click="draft = Object.fromEntries(columns.map(({ name }) => [name, '']))"
    >
      {{ add }}
    </ElButton>
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
.el-button.all {
  justify-self: start;
}
.rows :deep(.el-input__wrapper) {
  padding-inline: 4px;
}
.rows :deep(.figure .el-input__inner) {
  font-size: 0.9rem;
}
</style>
