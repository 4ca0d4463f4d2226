<script setup lang="ts">
import { computed, onMounted, ref, shallowRef } from 'vue'

import { api, type Choices, type Part, type Step } from '../api/client'
import { freeName, newStep, PURPOSES, workOf, type Purpose } from '../steps'
import { useJob } from '../stores/job'
import ProblemNote from './ProblemNote.vue'
import StepEditor from './StepEditor.vue'

/** What the selected part is made of, step by step: in order, each to be changed, moved, copied, switched off, removed. */
const props = defineProps<{ part: Part }>()
const job = useJob()
const choices = shallowRef<Choices | null>(null)
const open = ref('')
const renaming = ref('')

onMounted(async () => (choices.value = await api.choices()))

const ids = computed(() => props.part.steps.map(({ id }) => id))
const pathOf = (id: string) => `parts/${props.part.id}/steps/${id}`
const problemOf = (step: Step) => job.problemAt(pathOf(step.id)) ?? step.problem
const others = computed(() => job.design!.parts.filter(({ id }) => id !== props.part.id))

async function put(id: string, document: unknown, after?: string): Promise<void> {
  const edit = { verb: 'put' as const, path: pathOf(id), value: document, ...(after ? { after } : {}) }
  if (await job.edit(edit)) open.value = id
}

/** From a list of purposes; a file is asked for first. */
async function add(event: Event): Promise<void> {
  const select = event.target as HTMLSelectElement
  const purpose = select.value as Purpose
  select.value = ''
  if (purpose === 'file') document.getElementById('step-file')?.click()
  else await put(freeName(purpose, ids.value), newStep(purpose, props.part, others.value[0]?.id))
}

async function addFile(event: Event): Promise<void> {
  const input = event.target as HTMLInputElement
  const file = input.files?.[0]
  input.value = ''
  if (!file) return
  await job.attempt(async () => {
    const { name } = await api.keepFile(file)
    await put(freeName('file', ids.value), newStep('file', props.part, name))
  })
}

/** The copy stands behind the step it was made of. */
async function copy({ id, document }: Step): Promise<void> {
  const name = freeName(id.replace(/-\d+$/, ''), ids.value)
  await put(name, { ...document, id: name, title: '' }, id)
}

function move(index: number, by: -1 | 1): void {
  const rest = ids.value.filter((_, i) => i !== index)
  void job.edit({ verb: 'move', path: pathOf(ids.value[index]!), after: rest[index + by - 1] ?? '' })
}

async function rename(id: string, event: Event): Promise<void> {
  renaming.value = ''
  await job.put(`${pathOf(id)}/title`, (event.target as HTMLInputElement).value)
}
</script>

<template>
  <section v-if="choices">
    <h3>Steps of {{ part.title }}</h3>
    <ol>
      <li v-for="(step, index) in part.steps" :key="step.id" :class="{ off: !step.on }">
        <div class="row">
          <input
            v-if="renaming === step.id"
            class="boxed"
            :value="step.title"
            aria-label="name of the step"
            @change="rename(step.id, $event)"
            @keydown.esc="renaming = ''"
          />
          <button
            v-else
            class="name"
            :aria-expanded="open === step.id"
            @click="open = open === step.id ? '' : step.id"
          >
            <i class="swatch" :class="step.operation" />
            <span class="title">{{ step.title }}</span>
            <span class="small second">{{ workOf(step) }}{{ step.back ? ', back' : '' }}</span>
          </button>
          <button
            class="link small"
            :disabled="index === 0"
            :aria-label="`Move ${step.title} up`"
            @click="move(index, -1)"
          >
            ↑
          </button>
          <button
            class="link small"
            :disabled="index === part.steps.length - 1"
            :aria-label="`Move ${step.title} down`"
            @click="move(index, 1)"
          >
            ↓
          </button>
        </div>
        <ProblemNote
          v-if="problemOf(step)"
          class="note"
          :data-field="pathOf(step.id)"
          :problem="problemOf(step)!"
        />
        <template v-if="open === step.id">
          <p class="acts">
            <button class="link small" @click="renaming = step.id">Rename</button>
            <button class="link small" @click="copy(step)">Copy</button>
            <button
              class="link small"
              @click="job.edit({ verb: 'switch', path: pathOf(step.id), value: !step.on })"
            >
              {{ step.on ? 'Switch off' : 'Switch on' }}
            </button>
            <button class="link small" @click="job.edit({ verb: 'drop', path: pathOf(step.id) })">
              Remove
            </button>
          </p>
          <StepEditor :step="step" :part="part" :path="pathOf(step.id)" :choices="choices" />
        </template>
      </li>
    </ol>
    <p class="add">
      <select class="boxed" aria-label="Add a step" @change="add">
        <option value="">Add a step</option>
        <option
          v-for="(title, purpose) in PURPOSES"
          :key="purpose"
          :value="purpose"
          :disabled="purpose === 'part' && !others.length"
        >
          {{ title }}
        </option>
      </select>
      <input id="step-file" class="unseen" type="file" accept=".svg,.dxf" tabindex="-1" @change="addFile" />
    </p>
  </section>
</template>

<style scoped>
section {
  padding-top: 6px;
}
h3 {
  padding: 10px 18px 4px;
  font-size: 15.5px;
  font-weight: 600;
}
ol {
  counter-reset: step;
}
li {
  counter-increment: step;
  border-top: 1px solid var(--line);
}
.row {
  display: flex;
  align-items: center;
  padding: 0 12px;
}
.row:hover {
  background: var(--deep-wash);
}
.name {
  display: flex;
  flex: 1;
  align-items: baseline;
  gap: 4px;
  min-width: 0;
  padding: 5px 0;
  border-radius: 0;
}
.name::before {
  content: counter(step);
  width: 18px;
  color: var(--second);
  font-family: var(--figures);
  font-size: 12.5px;
}
.title {
  display: inline-block;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.name .second {
  margin-left: auto;
  padding-left: 8px;
}
.title::first-letter {
  text-transform: uppercase;
}
.off .title {
  display: inline-block;
  text-decoration: line-through;
  color: var(--second);
}
.note {
  margin: 0 18px 6px 29px;
}
.acts {
  padding: 0 18px 2px 25px;
}
.add {
  padding: 8px 18px;
  border-top: 1px solid var(--line);
}
</style>
