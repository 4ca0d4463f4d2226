<script setup lang="ts">
import { computed, nextTick, ref, useTemplateRef } from 'vue'

import type { Step } from '../api/client'
import { useTried } from '../composables/useTried'
import { useSay } from '../composables/useSay'
import { useJob } from '../stores/job'

/** A step as a sentence: its numbers are typed where they stand, and say what they would do before they are kept. */
const props = defineProps<{ step: Step; path: string; lit?: ReadonlySet<string> }>()
const job = useJob()
const say = useSay()
const { tried, ask, forget, outcome, valueAt } = useTried()

const open = ref('')
const draft = ref('')
const input = useTemplateRef<HTMLInputElement[]>('input')

type Word = Step['sentence'][number]
const isPlain = (text: string) => /^\s*-?[\d.,/ ]+\s*(mm|in)?\s*$/.test(text)
const shown = (word: Word) =>
  word.value === null || word.value === undefined
    ? word.typed
    : word.unit
      ? say.length(word.value)
      : say.number(word.value, 3, 0)
const textOf = (word: Word) => (word.unit ? say.edit(word.typed, word.unit) : word.typed)
const names = (word: Word) => word.typed.match(/[A-Za-z_][\w.]*/g) ?? []
const isLit = (word: Word) => !!props.lit?.size && names(word).some((name) => props.lit!.has(name))

async function begin(word: Word): Promise<void> {
  open.value = word.path
  draft.value = textOf(word)
  forget()
  await nextTick()
  input.value?.[0]?.focus()
  input.value?.[0]?.select()
}

async function keep(word: Word): Promise<void> {
  if (open.value !== word.path) return
  if (draft.value === textOf(word) || (await job.put(`${props.path}/${word.path}`, draft.value))) leave()
}

function leave(): void {
  open.value = ''
  forget()
  if (job.problem?.field.startsWith(props.path)) job.problem = null
}

const problem = computed(
  () => tried.value?.found.problem ?? (open.value ? job.problemAt(`${props.path}/${open.value}`) : null),
)
const value = computed(() => valueAt(`${props.path}/${open.value}`))
const lengthOpen = computed(() => props.step.sentence.find(({ path }) => path === open.value)?.unit)
</script>

<template>
  <span class="sentence" :data-field="open ? `${path}/${open}` : undefined">
    <template v-for="(word, i) in step.sentence" :key="i">
      <template v-if="!word.path">{{ word.text }}</template>
      <input
        v-else-if="open === word.path"
        ref="input"
        v-model="draft"
        class="figure"
        autocomplete="off"
        :aria-label="`${step.title}, ${word.path.replaceAll('/', ' ').replaceAll('_', ' ')}`"
        :aria-invalid="problem ? 'true' : undefined"
        :style="{ width: `${Math.max(draft.length + 2, 6)}ch` }"
        @click.stop
        @input="ask(`${path}/${open}`, draft)"
        @keydown.enter.prevent="keep(word)"
        @keydown.esc.stop="leave"
        @blur="keep(word)"
      />
      <button
        v-else
        type="button"
        class="figure number"
        :class="{ computed: !isPlain(word.typed), lit: isLit(word) }"
        :title="isPlain(word.typed) ? '' : word.typed"
        :aria-label="`${shown(word)}, change`"
        @click.stop="begin(word)"
      >
        {{ shown(word) }}
      </button>
    </template>
    <span v-if="open" class="outcome small" role="status">
      <template v-if="problem">
        <b class="bad">{{ say.sentence(problem.why) }}</b> {{ say.sentence(problem.fix) }}
      </template>
      <template v-else>
        <template v-if="value !== undefined">
          <b>= {{ lengthOpen ? `${say.length(value)} ${say.unit}` : say.number(value, 4, 0) }}</b> ·
        </template>
        <span v-for="one in outcome(step.id)" :key="one">{{ one }} · </span>
        Enter keeps it
      </template>
    </span>
  </span>
</template>

<style scoped>
.sentence {
  line-height: 1.5;
}
.number {
  min-height: 1.5rem;
  padding: 0 2px;
  border: 0;
  border-bottom: 1.5px dashed var(--ochre);
  background: none;
  color: var(--ink);
  font-size: 0.93rem;
  font-weight: 700;
  line-height: 1.25;
  cursor: pointer;
}
.number:hover,
.number:focus-visible,
.number.lit {
  background: var(--deep-wash);
  color: var(--deep);
}
.number.computed {
  border-bottom-style: solid;
  border-bottom-color: var(--edge);
}
input {
  min-height: 1.7rem;
  padding: 0 5px;
  border: 2px solid var(--deep);
  background: var(--sheet);
  color: var(--ink);
}
input[aria-invalid] {
  border-color: var(--bad);
}
.outcome {
  display: block;
  color: var(--second);
}
.outcome b {
  color: var(--deep);
}
.outcome .bad {
  color: var(--bad);
}
</style>
