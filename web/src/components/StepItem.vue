<script setup lang="ts">
import { computed, nextTick, ref } from 'vue'

import type { Part, Step } from '../api/client'
import { useActs } from '../composables/useActs'
import TextField from '../kit/TextField.vue'
import { workOf } from '../steps'
import { useJob } from '../stores/job'
import ActButtons from './ActButtons.vue'
import ProblemNote from './ProblemNote.vue'
import StepEditor from './StepEditor.vue'

/** One step: a line, and below it, while it is selected, what can be done with it and its questions. */
const props = defineProps<{ part: Part; step: Step }>()
const job = useJob()
const acts = useActs()
const renaming = ref(false)
const root = ref<HTMLElement | null>(null)

const path = computed(() => `parts/${props.part.id}/steps/${props.step.id}`)
const open = computed(() => job.picked.part === props.part.id && job.picked.step === props.step.id)
const problem = computed(() => job.problemAt(path.value) ?? props.step.problem)

/** Closing the step leaves its part selected. */
function toggle(): void {
  if (open.value) job.pick('part', props.part.id)
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
  <li ref="root" :class="{ off: !step.on }">
    <ElButton
      text
      class="row name"
      :aria-expanded="open"
      @click="toggle"
      @keydown.alt.up.prevent="move('Move up')"
      @keydown.alt.down.prevent="move('Move down')"
    >
      <i class="swatch" :class="step.operation" aria-hidden="true" />
      <span class="title">{{ step.title }}</span>
      <span class="small second">{{ workOf(step) }}{{ step.back ? ', back' : '' }}</span>
    </ElButton>
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
      <StepEditor :step="step" :part="part" :path="path" />
    </template>
  </li>
</template>

<style scoped>
li {
  counter-increment: step;
  border-top: 1px solid var(--line);
}
.name {
  padding: 4px 18px 4px 12px;
}
.name :deep(> span) {
  justify-content: flex-start;
}
.name::before {
  content: counter(step);
  width: 1.4rem;
  color: var(--second);
  font-family: var(--figures);
  font-size: 0.9rem;
}
.title {
  display: inline-block;
  flex: 1;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.title::first-letter {
  text-transform: uppercase;
}
.off .title {
  text-decoration: line-through;
  color: var(--second);
}
.note {
  margin: 0 18px 6px 29px;
}
.todo,
.rename {
  padding: 4px 18px 2px 29px;
}
</style>
