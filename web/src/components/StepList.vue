<script setup lang="ts">
import { useFileDialog } from '@vueuse/core'
import { computed, nextTick, ref, watch } from 'vue'

import { api, type Part } from '../api/client'
import ChoiceField from '../kit/ChoiceField.vue'
import { freeName, newStep, PURPOSES, type Purpose } from '../steps'
import { useJob } from '../stores/job'
import { useChoices } from '../stores/choices'
import StepItem from './StepItem.vue'

/** What the selected part is made of, step by step: in order, the selected one open. */
const props = defineProps<{ part: Part }>()
const job = useJob()
const choices = useChoices()
const list = ref<HTMLElement | null>(null)
const { open: askForFile, onChange } = useFileDialog({ accept: '.svg,.dxf', multiple: false, reset: true })

const ids = computed(() => props.part.steps.map(({ id }) => id))
const others = computed(() => job.design!.parts.filter(({ id }) => id !== props.part.id))
const purposes = computed(() =>
  Object.entries(PURPOSES).map(([value, label]) => ({
    value,
    label,
    disabled: value === 'part' && !others.value.length,
  })),
)

/** A step that is picked on a drawing is brought into view. */
watch(
  () => job.picked.step,
  async (step) => {
    await nextTick()
    if (step) list.value?.querySelector('[aria-expanded="true"]')?.scrollIntoView({ block: 'nearest' })
  },
  { immediate: true },
)

async function put(id: string, document: unknown): Promise<void> {
  const path = `parts/${props.part.id}/steps/${id}`
  if (await job.edit({ verb: 'put', path, value: document })) job.pick('step', props.part.id, id)
}

/** By what it is for; a file is asked for first. */
async function add(purpose: Purpose): Promise<void> {
  if (purpose === 'file') askForFile()
  else await put(freeName(purpose, ids.value), newStep(purpose, props.part, others.value[0]?.id))
}

onChange((files) => {
  const file = files?.[0]
  if (!file) return
  void job.attempt(async () => {
    const { name } = await api.keepFile(file)
    await put(freeName('file', ids.value), newStep('file', props.part, name))
  })
})
</script>

<template>
  <section v-if="choices.choices">
    <h2>Steps of {{ part.title }}</h2>
    <ol ref="list">
      <StepItem v-for="step in part.steps" :key="step.id" :part="part" :step="step" />
    </ol>
    <ChoiceField
      class="add"
      label="Add a step"
      hide-label
      placeholder="Add a step: a hole, an opening, lettering …"
      :options="purposes"
      :model-value="null"
      @update:model-value="add($event as Purpose)"
    />
  </section>
</template>

<style scoped>
section {
  position: relative;
  padding-top: 6px;
}
h2 {
  padding: 10px 18px 4px;
}
ol {
  counter-reset: step;
}
.add {
  padding: 8px 18px;
  border-top: 1px solid var(--line);
}
</style>
