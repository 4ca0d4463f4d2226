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
const drafts = ref<string[]>([])

function current(): string[] {
  return (job.design?.basis.stock.readings ?? []).map((mm) => shortText(mm, settings.unit))
}

watch(
  () => current().join(),
  () => job.problem?.field.startsWith('readings') || (drafts.value = [...current(), '']),
  { immediate: true },
)

function commit(): void {
  const typed = drafts.value.map((text) => text.trim()).filter(Boolean)
  if (typed.join() === current().join()) {
    if (job.problem?.field.startsWith('readings')) job.problem = null
    return
  }
  void job.edit({ readings: typed })
}

async function next(index: number): Promise<void> {
  commit()
  if (index === drafts.value.length - 1) drafts.value.push('')
  await nextTick()
  list.value?.querySelectorAll('input')[index + 1]?.focus()
}

function paste(event: ClipboardEvent, index: number): void {
  const values = (event.clipboardData?.getData('text') ?? '').split(/[\s;]+/).filter(Boolean)
  if (values.length < 2) return
  event.preventDefault()
  drafts.value.splice(index, 1, ...values)
  drafts.value = [...drafts.value.filter(Boolean), '']
  commit()
}

function remove(index: number): void {
  drafts.value.splice(index, 1)
  commit()
}

/** The problem's own index counts filled readings only, as they were sent. */
function problemAt(index: number) {
  const sent = drafts.value.slice(0, index).filter((text) => text.trim()).length
  return drafts.value[index]?.trim() ? job.problemAt(`readings[${sent}]`) : null
}
</script>

<template>
  <ol ref="list" class="readings">
    <li v-for="(_, index) in drafts" :key="index">
      <input
        v-model="drafts[index]"
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
