<script setup lang="ts">
import { computed, nextTick, ref, watch } from 'vue'

import type { Problem } from '../api/client'
import { useSay } from '../composables/useSay'
import { splitLengths } from '../units'
import ProblemNote from './ProblemNote.vue'

/** Caliper readings one after the other: Enter goes to the next, an empty one at the end adds, a list may be pasted.
 *
 * `values` are the readings as they were understood, in mm; `typed` is what was typed before, if none was yet. */
const props = withDefaults(
  defineProps<{
    values: readonly number[]
    problem: Problem | null
    typed?: readonly string[]
    field?: string
    noun?: string
  }>(),
  { typed: () => [], field: 'readings', noun: 'reading' },
)
const emit = defineEmits<{ commit: [texts: string[]]; clear: [] }>()
const say = useSay()
const list = ref<HTMLElement | null>(null)

/** A reading as shown; one that was not touched since goes back as measured, whatever unit it is shown in. */
interface Draft {
  text: string
  shown: string
  mm: number
}
const drafts = ref<Draft[]>([])
const EMPTY: Draft = { text: '', shown: '', mm: 0 }

function current(): Draft[] {
  return props.values.map((mm) => {
    const text = say.short(mm)
    return { text, shown: text, mm }
  })
}

drafts.value = props.values.length
  ? [...current(), { ...EMPTY }]
  : [...props.typed, ''].map((text) => ({ ...EMPTY, text }))
watch(
  () => JSON.stringify(current()),
  () => props.problem || (drafts.value = [...current(), { ...EMPTY }]),
)

const filled = computed(() => drafts.value.filter(({ text }) => text.trim()))

/** What was refused is not sent again as it is: leaving a field and pressing its button would otherwise send it twice. */
let sent = ''

function commit(): void {
  const same =
    filled.value.length === props.values.length && filled.value.every(({ text, shown }) => text === shown)
  if (same) {
    if (props.problem) emit('clear')
    return
  }
  // A list typed into one field comes apart at once, so that each reading has a place to say what is wrong with it.
  const parted = filled.value.flatMap((draft) =>
    draft.text === draft.shown ? [draft] : splitLengths(draft.text).map((text) => ({ ...EMPTY, text })),
  )
  if (parted.length !== filled.value.length) drafts.value = [...parted, { ...EMPTY }]
  const texts = parted.map(({ text, shown, mm }) => (text === shown ? `${mm} mm` : text))
  if (props.problem && sent === texts.join()) return
  sent = texts.join()
  emit('commit', texts)
}

async function next(index: number): Promise<void> {
  const before = drafts.value.length
  commit()
  const following = drafts.value.length > before ? drafts.value.length - 1 : index + 1
  if (following === drafts.value.length) drafts.value.push({ ...EMPTY })
  await nextTick()
  list.value?.querySelectorAll('input')[following]?.focus()
}

function paste(event: ClipboardEvent, index: number): void {
  const text = event.clipboardData?.getData('text') ?? ''
  if (splitLengths(text).length < 2) return
  event.preventDefault() // a field would make one line of it
  drafts.value[index] = { ...EMPTY, text }
  commit()
}

function remove(index: number): void {
  drafts.value.splice(index, 1)
  commit()
}

function mend(index: number, text: string): void {
  drafts.value[index] = { ...EMPTY, text }
  commit()
}

/** The problem's own index counts filled readings only, as they were sent. */
function problemAt(index: number): Problem | null {
  const sent = drafts.value.slice(0, index).filter(({ text }) => text.trim()).length
  const here = drafts.value[index]?.text.trim() && props.problem?.field === `${props.field}[${sent}]`
  return here ? props.problem : null
}
</script>

<template>
  <div>
    <ol ref="list">
      <li v-for="(draft, index) in drafts" :key="index">
        <ElInput
          v-model="draft.text"
          class="figure"
          autocomplete="off"
          :data-field="`${field}[${index}]`"
          :aria-label="index === drafts.length - 1 ? `next ${noun}` : `${noun} ${index + 1}`"
          :placeholder="index === drafts.length - 1 ? 'next' : ''"
          :aria-invalid="problemAt(index) ? 'true' : undefined"
          @keydown.enter="next(index)"
          @blur="commit"
          @paste="paste($event as ClipboardEvent, index)"
        />
        <ElButton
          v-if="index < drafts.length - 1"
          link
          :aria-label="`Remove ${noun} ${index + 1}`"
          @click="remove(index)"
          >×</ElButton
        >
        <ProblemNote v-if="problemAt(index)" :problem="problemAt(index)!" @mend="mend(index, $event)" />
      </li>
    </ol>
    <ProblemNote v-if="problem?.field === field" :problem="problem" />
  </div>
</template>

<style scoped>
ol {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(6rem, 1fr));
  align-items: start;
  gap: 4px 6px;
}
li {
  display: grid;
  grid-template-columns: 1fr 24px;
  align-items: center;
}
li:has(p) {
  grid-column: 1 / -1;
}
li > p {
  grid-column: 1 / -1;
}
</style>
