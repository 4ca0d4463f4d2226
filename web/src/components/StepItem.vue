<script setup lang="ts">
import { useStorage } from '@vueuse/core'
import { computed, nextTick, ref } from 'vue'

import type { Part, Step } from '../api/client'
import { useActs } from '../composables/useActs'
import type { usePlacing } from '../composables/usePlacing'
import TextField from '../kit/TextField.vue'
import { useJob } from '../stores/job'
import ActButtons from './ActButtons.vue'
import ProblemNote from './ProblemNote.vue'
import StepEditor from './StepEditor.vue'
import StepPlace from './StepPlace.vue'
import StepWords from './StepWords.vue'

/** One step: its sentence, and below it, while it is selected, what can be done with it and all its fields. */
const props = defineProps<{
  part: Part
  step: Step
  placing: ReturnType<typeof usePlacing>
  picking: boolean
  /** Named lengths to show where they are used. */
  lit: ReadonlySet<string>
}>()
const emit = defineEmits<{ pick: [] }>()
const job = useJob()
const acts = useActs()
const renaming = ref(false)
const root = ref<HTMLElement | null>(null)
const placeOpen = useStorage('step-place', false)

const path = computed(() => `parts/${props.part.id}/steps/${props.step.id}`)
const selected = computed(() => job.picked.part === props.part.id && job.steps.includes(props.step.id))
const open = computed(() => selected.value && job.picked.step === props.step.id && job.steps.length === 1)
const problem = computed(() => job.problemAt(path.value) ?? props.step.problem)
const isShape = computed(() => props.step.document['kind'] === 'shape')
const uses = computed(() => props.step.follows.names.some((name) => props.lit.has(name)))
const isHidden = computed(() => job.hidden.has(`${props.part.id}/${props.step.id}`))
const findings = computed(() =>
  job.design!.findings.filter(({ field, part }) => part === props.part.id && (field === path.value || field.startsWith(`${path.value}/`))),
) // prettier-ignore

/** Closing the step leaves its part selected; with Shift or Ctrl it is one more, or one less. */
function toggle(event: MouseEvent): void {
  if (event.shiftKey || event.ctrlKey || event.metaKey) job.pickMore(props.part.id, props.step.id)
  else if (open.value) job.pick('part', props.part.id)
  else job.pick('step', props.part.id, props.step.id)
}

/** Up and down by the same acts as the buttons'; the focus goes along. */
async function move(name: 'Move up' | 'Move down'): Promise<void> {
  const act = acts.ofStep(props.part, props.step).find((one) => one.name === name)
  if (!act || act.disabled) return
  await act.run()
  await nextTick()
  root.value?.querySelector('button')?.focus()
}

async function rename(title: string): Promise<void> {
  if (await job.put(`${path.value}/title`, title)) renaming.value = false
}
</script>

<template>
  <li ref="root" :class="{ off: !step.on, selected, uses, away: isHidden }" draggable="true">
    <div class="row" @click="toggle">
      <button
        type="button"
        class="name figure"
        :aria-expanded="open"
        :aria-label="step.title"
        :aria-pressed="selected"
        @click.stop="toggle"
        @keydown.alt.up.prevent="move('Move up')"
        @keydown.alt.down.prevent="move('Move down')"
      />
      <span class="said">
        <StepWords :step="step" :path="path" :lit="lit" />
        <span v-if="step.document['title']" class="small second called"> {{ step.title }}</span>
        <span v-if="!step.on" class="small second"> switched off</span>
      </span>
      <i class="swatch" :class="step.operation" aria-hidden="true" />
    </div>
    <p v-for="one in findings" :key="one.why" class="finding small">
      {{ one.why }}
      <ElButton v-if="one.mend" link size="small" @click="job.put(one.mend.path, one.mend.value)">{{
        one.mend.says
      }}</ElButton>
    </p>
    <ProblemNote v-if="problem" class="note" :data-field="path" :problem="problem" />
    <template v-if="open">
      <TextField
        v-if="renaming"
        class="rename"
        label="Name of the step"
        :field="`${path}/title`"
        words
        :text="step.title"
        :problem="job.problemAt(`${path}/title`)"
        @commit="rename"
        @cancel="renaming = false"
        @clear="job.problem = null"
      />
      <ActButtons class="todo" :acts="acts.ofStep(part, step)">
        <ElButton link size="small" @click="renaming = !renaming">Rename</ElButton>
      </ActButtons>
      <details
        v-if="isShape"
        class="where"
        :open="placeOpen"
        @toggle="placeOpen = ($event.target as HTMLDetailsElement).open"
      >
        <summary class="small">Measured from</summary>
        <StepPlace
          :part="part"
          :step="step"
          :path="path"
          :placing="placing"
          :picking="picking"
          @pick="emit('pick')"
        />
      </details>
      <StepEditor :step="step" :part="part" :path="path" />
    </template>
  </li>
</template>

<style scoped>
li {
  counter-increment: step;
  border-top: 1px solid var(--line);
  border-left: 3px solid transparent;
}
li.selected {
  border-left-color: var(--deep);
  background: var(--sheet);
}
.row {
  display: grid;
  grid-template-columns: 1.9rem 1fr auto;
  gap: 6px;
  align-items: baseline;
  padding: 6px 18px 6px 10px;
  cursor: pointer;
}
.name {
  min-height: 1.6rem;
  padding: 0;
  border: 0;
  background: none;
  color: var(--second);
  font-size: 0.9rem;
  text-align: left;
  cursor: pointer;
}
.name::before {
  content: counter(step);
}
li.selected .name {
  color: var(--deep);
  font-weight: 700;
}
.uses .row {
  background: var(--deep-wash);
}
.off .said {
  text-decoration: line-through;
  color: var(--second);
}
.away .said {
  opacity: 0.55;
}
.called::before {
  content: '· ';
}
.finding {
  margin: 0 18px 6px 40px;
  padding: 3px 9px;
  background: var(--ochre-wash);
  color: var(--ochre-text);
}
.note {
  margin: 0 18px 6px 40px;
}
.todo,
.rename {
  padding: 2px 18px 2px 40px;
}
.where summary {
  padding: 3px 18px 3px 40px;
  color: var(--deep);
  cursor: pointer;
}
</style>
