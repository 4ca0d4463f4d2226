<script setup lang="ts">
import { computed, nextTick, ref } from 'vue'

import type { Figure } from '../api/client'
import { useSay } from '../composables/useSay'
import { useJob } from '../stores/job'
import LengthField from './LengthField.vue'

/** One number with its source and its derivation. Chosen ones open for editing; the value before an edit is shown. */
const props = defineProps<{ row: Figure; subject: string }>()

const job = useJob()
const say = useSay()
const root = ref<HTMLElement | null>(null)
const opened = ref(false)
const editing = computed(
  () => props.row.field !== '' && (opened.value || job.problemAt(props.row.field) !== null),
)
const MARKS = { measured: '●', chosen: '◇', computed: '=' } as const

/** What stood here before the last edit, if that shows. */
const was = computed(() => {
  const before = job.changed.figures.get(`${props.subject}/${props.row.key}`)
  return before && show(before) !== show(props.row) ? show(before) : null
})

/** A figure that its derivation adds up to is shown with as many decimals as it takes. */
const isFiner = (mm: number, because: string) =>
  /\d/.test(because) && Math.abs(mm - Number(say.number(mm, 2))) > 0.0005

function show({ key, kind, value, word, because }: Figure): string {
  if (value === null) return word
  if (kind === 'length') return say.length(value, key === 'clearance' || isFiner(value, because) ? 3 : 2)
  if (kind === 'area') return say.area(value).split(' ')[0]!
  if (kind === 'mass') return say.mass(value).split(' ')[0]!
  return kind === 'share' ? say.number(value * 100, 0) : String(value)
}

const unit = computed(() => {
  const { kind, value } = props.row
  if (value === null) return ''
  if (kind === 'area') return say.area(value).split(' ')[1]!
  if (kind === 'mass') return say.mass(value).split(' ')[1]!
  return { length: say.unit, share: '%', count: '', word: '' }[kind]
})

async function edit(): Promise<void> {
  opened.value = true
  await nextTick()
  root.value?.querySelector('input')?.focus()
}

async function close(): Promise<void> {
  const here = root.value?.contains(document.activeElement)
  opened.value = false
  await nextTick()
  if (here) root.value?.querySelector('button')?.focus()
}

async function commit(text: string): Promise<void> {
  if (await job.put(props.row.field, text)) await close()
}

/** Leaving the field ends the edit; the button that gives way to it does not. */
function leave(event: FocusEvent): void {
  if (event.target instanceof HTMLInputElement && !root.value?.contains(event.relatedTarget as Node | null))
    opened.value = false
}
</script>

<template>
  <li ref="root" :class="{ changed: was !== null }" @focusout="leave">
    <span class="mark" :class="row.source" :title="row.source"
      >{{ MARKS[row.source] }}<span class="unseen">{{ row.source }}</span></span
    >
    <span class="title">{{ row.title }}</span>
    <LengthField
      v-if="editing"
      class="edit"
      :plain="row.kind !== 'length'"
      :field="row.field"
      :label="row.title"
      hide-label
      :text="say.edit(row.typed, row.unit)"
      @commit="commit"
      @cancel="close"
    />
    <button
      v-else-if="row.field"
      class="value figure chosen"
      :aria-label="`${row.title} ${show(row)} ${unit}, change`"
      @click="edit"
    >
      {{ show(row) }} <span class="second">{{ unit }}</span>
    </button>
    <span v-else class="value figure"
      >{{ show(row) }} <span class="second">{{ unit }}</span></span
    >
    <span v-if="row.because" class="because small second">{{ say.figures(row.because) }}</span>
    <span v-if="was !== null" class="was small ochre">Was {{ was }}</span>
  </li>
</template>

<style scoped>
li {
  display: grid;
  grid-template-columns: 17px 1fr auto;
  align-items: baseline;
  padding: 5px 18px 5px 12px;
  border-top: 1px solid var(--line);
}
.changed {
  box-shadow: inset 3px 0 var(--ochre);
}
.title::first-letter {
  text-transform: uppercase;
}
.title {
  display: inline-block;
}
.mark {
  font-size: 0.85rem;
  color: var(--third);
}
.mark.measured {
  color: var(--deep);
}
.mark.chosen {
  color: var(--ochre-text);
}
.value {
  min-height: 0;
  padding: 0;
  font-size: 1rem;
}
li button.chosen {
  min-height: 24px;
  padding: 0;
  border: 0;
  border-bottom: 1px dashed var(--ochre-text);
  border-radius: 0;
}
li button.chosen:hover {
  background: var(--ochre-wash);
}
.edit {
  grid-column: 3;
  width: 10.5rem;
}
.because,
.was {
  grid-column: 2 / -1;
}
</style>
