<script setup lang="ts">
import { nextTick, ref, watch } from 'vue'

import { useJob } from '../stores/job'
import { useSettings } from '../stores/settings'
import { shortText } from '../units'
import ProblemNote from './ProblemNote.vue'

/** Caliper readings one after the other: Enter goes to the next, an empty one at the end adds, a list may be pasted. */
const job = useJob()
const settings = useSettings()
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
  return (job.design?.basis.stock.readings ?? []).map((mm) => {
    const text = shortText(mm, settings.unit)
    return { text, shown: text, mm }
  })
}

watch(
  () => JSON.stringify(current()),
  () => job.problem?.field.startsWith('readings') || (drafts.value = [...current(), { ...EMPTY }]),
  { immediate: true },
)

function commit(): void {
  const filled = drafts.value.filter(({ text }) => text.trim())
  const same = filled.length === current().length && filled.every(({ text, shown }) => text === shown)
  if (!same)
    void job.edit({
      readings: filled.map(({ text, shown, mm }) => (text === shown ? `${mm} mm` : text.trim())),
    })
  else if (job.problem?.field.startsWith('readings')) job.problem = null
}

async function next(index: number): Promise<void> {
  commit()
  if (index === drafts.value.length - 1) drafts.value.push({ ...EMPTY })
  await nextTick()
  list.value?.querySelectorAll('input')[index + 1]?.focus()
}

function paste(event: ClipboardEvent, index: number): void {
  const values = (event.clipboardData?.getData('text') ?? '').split(/[\s;]+/).filter(Boolean)
  if (values.length < 2) return
  event.preventDefault()
  drafts.value.splice(index, 1, ...values.map((text) => ({ ...EMPTY, text })))
  drafts.value = [...drafts.value.filter(({ text }) => text.trim()), { ...EMPTY }]
  commit()
}

function remove(index: number): void {
  drafts.value.splice(index, 1)
  commit()
}

/** The problem's own index counts filled readings only, as they were sent. */
function problemAt(index: number) {
  const sent = drafts.value.slice(0, index).filter(({ text }) => text.trim()).length
  return drafts.value[index]?.text.trim() ? job.problemAt(`readings[${sent}]`) : null
}
</script>

<template>
  <ol ref="list" class="readings">
    <li v-for="(draft, index) in drafts" :key="index">
      <input
        v-model="draft.text"
        class="boxed figure"
        autocomplete="off"
        :data-field="`readings[${index}]`"
        :aria-label="index === drafts.length - 1 ? 'next reading' : `reading ${index + 1}`"
        :placeholder="index === drafts.length - 1 ? 'next reading' : ''"
        :aria-invalid="problemAt(index) ? 'true' : undefined"
        @keydown.enter="next(index)"
        @blur="commit"
        @paste="paste($event, index)"
      />
      <button
        v-if="index < drafts.length - 1"
        class="link"
        :aria-label="`remove reading ${index + 1}`"
        @click="remove(index)"
      >
        remove
      </button>
      <ProblemNote v-if="problemAt(index)" :problem="problemAt(index)!" />
    </li>
  </ol>
  <ProblemNote v-if="job.problemAt('readings')" :problem="job.problemAt('readings')!" />
</template>

<style scoped>
li {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 4px;
  margin-bottom: 4px;
}
li > p {
  grid-column: 1 / -1;
}
</style>
