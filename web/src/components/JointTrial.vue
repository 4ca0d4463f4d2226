<script setup lang="ts">
import { useStorage } from '@vueuse/core'
import { computed, ref, shallowRef, watch } from 'vue'
import { useRouter } from 'vue-router'

import { api, Problem, type Mate, type PairRead } from '../api/client'
import { useSay } from '../composables/useSay'
import ChoiceWord from '../kit/ChoiceWord.vue'
import { optionsOf } from '../kit/options'
import { FITS } from '../rack'
import { useChoices } from '../stores/choices'
import { useJob } from '../stores/job'
import ProblemNote from './ProblemNote.vue'

/** A trial pair of the joint is cut as a job of its own; how its slots felt tells the fit of that pair of boards. What was answered
 * stays in this browser. */
const props = defineProps<{ mate: Mate }>()
const job = useJob()
const say = useSay()
const router = useRouter()
const choices = useChoices()
const starting = ref(false)
const FEWEST = 3

const kept = useStorage<Record<string, string[]>>('trial pairs', {}, localStorage, { deep: true })
const key = computed(() => `${job.design!.id}/${props.mate.id}`)
const answers = computed(() => props.mate.trial.map((_, i) => kept.value[key.value]?.[i] ?? ''))
const options = computed(() => [
  ...optionsOf(choices.choices?.feels ?? []),
  { value: '', label: 'not tried' },
])
function answer(slot: number, feel: string): void {
  kept.value[key.value] = answers.value.map((before, i) => (i === slot ? feel : before))
}

const read = shallowRef<PairRead | null>(null)
const problem = shallowRef<Problem | null>(null)
watch(
  [key, answers, () => props.mate.trial],
  async ([, given], _, onCleanup) => {
    let awaited = true
    onCleanup(() => (awaited = false)) // the job may be closed by the time that an answer comes
    read.value = problem.value = null
    if (given.filter(Boolean).length < FEWEST) return
    try {
      const found = await api.readTrialPair(job.design!.id, props.mate.id, given)
      if (awaited) read.value = found
    } catch (error) {
      if (!(error instanceof Problem)) throw error
      if (awaited) problem.value = error
    }
  },
  { immediate: true },
)
const wrong = (slot: number) => problem.value?.field === `answers[${slot}]`

/** The clearance that the joint has now, by a hair. */
const now = computed(() => {
  const { contacts } = props.mate
  return (contacts.find((one) => one.by_thickness) ?? contacts[0])?.clearance ?? NaN
})
const isNow = (mm: number) => Math.abs(mm - now.value) < 1e-6

async function start(): Promise<void> {
  starting.value = true
  await job.attempt(async () => {
    const { id } = await api.trialPair(job.design!.id, props.mate.id)
    await router.push({ name: 'lay-out', params: { id } })
  })
  starting.value = false
}
</script>

<template>
  <section v-if="mate.fit_field" class="trial">
    <h2>Trial pair</h2>
    <p class="small second">
      {{ mate.trial.length }} numbered slots with clearances in steps, and two tongues, as a job of its own.
    </p>
    <ElButton size="small" :loading="starting" @click="start">Start a trial pair</ElButton>
    <details :open="answers.some(Boolean)">
      <summary class="small">It is cut: how does the tongue feel in each slot?</summary>
      <ol aria-label="Slots of the trial pair">
        <li v-for="(mm, i) in mate.trial" :key="i" :class="{ wrong: wrong(i), now: isNow(mm) }">
          <span class="figure">{{ i + 1 }}</span>
          <span class="figure second">{{ say.signed(mm, 3) }}</span>
          <ChoiceWord
            :label="`Slot ${i + 1}`"
            :options="options"
            :model-value="answers[i]!"
            @update:model-value="answer(i, $event)"
          />
          <span v-if="isNow(mm)" class="small second">as the joint is now</span>
        </li>
      </ol>
      <ProblemNote v-if="problem" :problem="problem" />
      <div v-if="read" class="read" aria-live="polite">
        <p class="small second">Make the joint, each {{ say.within(read.within) }} {{ say.unit }}:</p>
        <ElButton
          v-for="fit in FITS"
          :key="fit"
          size="small"
          :type="isNow(read.fits[fit]) ? 'primary' : undefined"
          :aria-pressed="isNow(read.fits[fit])"
          @click="job.put(mate.fit_field, `${read.fits[fit]} mm`)"
        >
          {{ fit }} <span class="figure">&nbsp;{{ say.signed(read.fits[fit], 3) }}</span>
        </ElButton>
        <p v-for="one in read.notes" :key="one" class="small ochre">{{ say.sentence(one) }}</p>
      </div>
    </details>
    <ProblemNote v-if="job.problemAt(mate.fit_field)" :problem="job.problemAt(mate.fit_field)!" />
  </section>
</template>

<style scoped>
.trial {
  padding: 8px 18px 12px;
  border-top: 1px solid var(--line);
}
ol {
  display: grid;
  margin: 8px 0;
  padding: 0;
  list-style: none;
}
li {
  display: grid;
  grid-template-columns: 1.6em 4.5em auto 1fr;
  gap: 8px;
  align-items: baseline;
  border-top: 1px solid var(--line);
}
summary {
  padding: 8px 0 2px;
  cursor: pointer;
}
.wrong {
  background: var(--bad-wash);
}
.read :deep(.el-button) {
  margin: 2px 6px 2px 0;
}
</style>
