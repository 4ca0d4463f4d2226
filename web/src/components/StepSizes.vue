<script setup lang="ts">
import { computed, ref, watch } from 'vue'

import type { Part, Step } from '../api/client'
import { useSay } from '../composables/useSay'
import type { SizeLine } from '../geometry/sizes'
import { useJob } from '../stores/job'
import { useTried } from '../composables/useTried'
import SizeField from './SizeField.vue'

/** The sizes of a step, typed where they stand: what would come of it is computed before it is kept. */
const props = defineProps<{
  part: Part
  step: Step
  /** Where each of its sizes stands. */
  lines: readonly SizeLine[]
  /** The size whose field is to be open. */
  opened?: string
}>()
const job = useJob()
const say = useSay()
const { tried, ask, forget: forgetTried, outcome, valueAt, problemAt } = useTried()

const pathOf = (path: string) => `parts/${props.part.id}/steps/${props.step.id}/${path}`
const open = ref('')

function forget(): void {
  open.value = ''
  forgetTried()
  if (job.problem?.field.startsWith(pathOf(''))) job.problem = null
}
watch(() => props.step.id, forget)

/** What was refused stays open with its problem. */
async function keep(size: Step['sizes'][number], text: string): Promise<void> {
  const same = text === say.edit(size.text, size.unit)
  if (same || (await job.put(pathOf(size.path), text))) forget()
}

const shown = computed(() =>
  props.step.sizes.map((size, i) => {
    const path = pathOf(size.path)
    return {
      size,
      path,
      at: props.lines[i]!.middle,
      value: valueAt(path) ?? size.value,
      was: tried.value?.path === path ? size.value : null,
      problem: problemAt(path) ?? job.problemAt(path),
    }
  }),
)
const plain = (text: string) => /^\s*[\d.,/ ]+\s*(mm|in)?\s*$/.test(text)
</script>

<template>
  <SizeField
    v-for="one in shown"
    :key="one.path"
    :at="one.at"
    :label="`${part.title}, ${step.title} ${one.size.says}`"
    :value="one.value"
    :text="say.edit(one.size.text, one.size.unit)"
    :chosen="plain(one.size.text)"
    :was="one.was"
    :title="one.size.says"
    :problem="one.problem"
    :outcome="outcome(step.id)"
    :start="!!opened && one.size.path === opened"
    @begin="open = one.path"
    @draft="ask(one.path, $event)"
    @keep="keep(one.size, $event)"
    @leave="forget"
  />
</template>
