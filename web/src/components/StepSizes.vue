<script setup lang="ts">
import { useDebounceFn } from '@vueuse/core'
import { computed, ref, shallowRef, watch } from 'vue'

import { api, Problem, type Part, type Step, type Tried } from '../api/client'
import { useSay } from '../composables/useSay'
import { lineOf } from '../geometry/sizes'
import type { Point } from '../geometry/view'
import { useJob } from '../stores/job'
import { useOutcome } from '../composables/useOutcome'
import SizeField from './SizeField.vue'

/** The sizes of a step, typed where they stand: what would come of it is computed before it is kept. */
const props = defineProps<{
  part: Part
  step: Step
  place: Point
  at: (point: Point) => Point
  /** The size whose field is to be open. */
  opened?: string
}>()
const job = useJob()
const say = useSay()
const PAUSE_MS = 80

const pathOf = (path: string) => `parts/${props.part.id}/steps/${props.step.id}/${path}`
const said = useOutcome()
const tried = shallowRef<{ path: string; found: Tried } | null>(null)
const open = ref('')
let asked = 0

const typed = useDebounceFn(async (path: string, text: string) => {
  const mine = ++asked
  try {
    const found = await api.tried(job.design!.id, [{ verb: 'put', path, value: text }], say.unit)
    if (mine === asked) tried.value = { path, found }
  } catch (error) {
    if (!(error instanceof Problem)) throw error // without a connection the size is simply not tried
  }
}, PAUSE_MS)

function forget(): void {
  asked++
  open.value = ''
  tried.value = null
  if (job.problem?.field.startsWith(pathOf(''))) job.problem = null
}
watch(() => props.step.id, forget)

/** What was refused stays open with its problem. */
async function keep(size: Step['sizes'][number], text: string): Promise<void> {
  const same = text === say.edit(size.text, size.unit)
  if (same || (await job.put(pathOf(size.path), text))) forget()
}

/** What would change beside the size itself, in a few words: steps that move along, then figures. */
const outcome = computed(() => {
  const { changes = [], moved = [], broken = [] } = tried.value?.found ?? {}
  return said.value(moved, changes, props.step.id, broken)
})

const shown = computed(() =>
  props.step.sizes.map((size) => {
    const path = pathOf(size.path)
    const mine = tried.value?.path === path ? tried.value.found : null
    return {
      size,
      path,
      at: lineOf(size, props.place, props.at).middle,
      value: mine?.values[path] ?? size.value,
      was: mine ? size.value : null,
      problem: mine?.problem ? problemOf(mine.problem, path) : job.problemAt(path),
    }
  }),
)
const problemOf = ({ code, why, fix }: NonNullable<Tried['problem']>, path: string) =>
  new Problem(code, why, fix, path, 422)
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
    :outcome="outcome"
    :start="!!opened && one.size.path === opened"
    @begin="open = one.path"
    @draft="typed(one.path, $event)"
    @keep="keep(one.size, $event)"
    @leave="forget"
  />
</template>
