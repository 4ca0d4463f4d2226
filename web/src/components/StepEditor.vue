<script setup lang="ts">
import { computed } from 'vue'

import { api, type Choices, type FieldInfo, type Part, type Step } from '../api/client'
import { asked, freeName, operationsFor, typed, type Document } from '../steps'
import { useJob } from '../stores/job'
import { useSettings } from '../stores/settings'
import { editText } from '../units'
import AnswerField from './AnswerField.vue'
import LengthField from './LengthField.vue'

/** One step's questions, as the core describes them; every answer is an edit of its own. */
const props = defineProps<{ step: Step; part: Part; path: string; choices: Choices }>()
const job = useJob()
const settings = useSettings()

const document = computed(() => props.step.document as Document)
const shape = computed(() => document.value['shape'] as (Document & { kind: string }) | undefined)
const pattern = computed(() => document.value['pattern'] as (Document & { kind: string }) | undefined)
const fieldsOf = (of: string): readonly FieldInfo[] => props.choices.fields[of] ?? []
const own = computed(() => asked(fieldsOf(`step/${String(document.value['kind'])}`), document.value))
const shapeFields = computed(() =>
  asked(fieldsOf(`shape/${shape.value?.kind}`), document.value).filter(
    ({ name }) => name !== 'part' && name !== 'file',
  ),
)
const nodes = computed(() => (shape.value?.['nodes'] as Document[] | undefined) ?? [])
const corners = computed(() => (document.value['corners'] as string[] | undefined) ?? [])
const others = computed(() => job.design!.parts.filter(({ id }) => id !== props.part.id))

const WORDS: Record<string, [string, string][]> = {
  does: [
    ['add', 'adds to the part'],
    ['cut', 'is cut out'],
    ['keep', 'keeps what lies inside'],
    ['mark', 'is marked'],
  ],
  side: [
    ['auto', 'so that the size is kept'],
    ['on', 'on the line'],
    ['outside', 'outside the line'],
    ['inside', 'inside the line'],
  ],
  align: [
    ['left', 'from the left'],
    ['middle', 'about its middle'],
    ['right', 'up to the right'],
  ],
}
const DEFAULTS: Document = { does: 'add', operation: 'engrave', side: 'auto', face: 'front', align: 'left', font: 'sans', scale: 1, turn: 0, sweep: 360, columns: 1, rows: 1, shape: 'round', angle: 90, keep: true } // prettier-ignore

function choicesOf({ name }: FieldInfo): readonly (readonly [string, string])[] | undefined {
  return name === 'operation' ? operationsFor(document.value, props.choices.operations) : WORDS[name]
}

const valueIn = (holder: Document | undefined, { name }: FieldInfo) => holder?.[name] ?? DEFAULTS[name]
const valueOf = (event: Event) => (event.target as HTMLInputElement | HTMLSelectElement).value

function setPattern(kind: string): void {
  const grid = { kind, columns: 2, rows: 1, dx: '10 mm', dy: '10 mm' }
  const around = { kind, count: 6, x: document.value['x'] ?? '0', y: document.value['y'] ?? '0' }
  void job.put(`${props.path}/pattern`, kind === 'grid' ? grid : kind === 'around' ? around : null)
}

function setCorner(name: string, on: boolean): void {
  const chosen = on ? [...corners.value, name] : corners.value.filter((one) => one !== name)
  void job.put(`${props.path}/corners`, chosen)
}

async function keepFile(event: Event): Promise<void> {
  const file = (event.target as HTMLInputElement).files?.[0]
  if (file)
    await job.attempt(async () => {
      await job.put(`${props.path}/shape/file`, (await api.keepFile(file)).name)
    })
}

function addNode(): void {
  const last = nodes.value.at(-1)!
  const id = freeName('n', nodes.value.map((node) => String(node['id']))).replace('n-', 'n') // prettier-ignore
  void job.put(`${props.path}/shape/nodes/${id}`, { x: last['x'], y: last['y'] })
}

function nodeText(node: Document, axis: 'x' | 'y'): string {
  const { text, unit } = typed(node[axis])
  return editText(text, unit, settings.unit)
}
</script>

<template>
  <form @submit.prevent>
    <AnswerField
      v-for="info in shapeFields"
      :key="`shape-${info.name}`"
      :info="info"
      :path="`${path}/shape`"
      :value="valueIn(shape, info)"
      :choices="choicesOf(info)"
    />
    <label v-if="shape?.kind === 'part'" class="wide">
      Part
      <select class="boxed" :value="shape['part']" @change="job.put(`${path}/shape/part`, valueOf($event))">
        <option v-for="one in others" :key="one.id" :value="one.id">{{ one.title }}</option>
      </select>
    </label>
    <label v-if="shape?.kind === 'imported'" class="wide">
      File, SVG or DXF <input type="file" accept=".svg,.dxf" @change="keepFile" />
    </label>
    <fieldset v-if="nodes.length" class="wide">
      <legend>Nodes, in order once round</legend>
      <div v-for="(node, i) in nodes" :key="String(node['id'])" class="node">
        <LengthField
          v-for="axis in ['x', 'y'] as const"
          :key="axis"
          :field="`${path}/shape/nodes/${node['id']}/${axis}`"
          :label="`node ${i + 1}, ${axis}`"
          hide-label
          :text="nodeText(node, axis)"
          @commit="job.put(`${path}/shape/nodes/${node['id']}/${axis}`, $event)"
        />
        <button
          v-if="nodes.length > 3"
          type="button"
          class="link small"
          @click="job.edit({ verb: 'drop', path: `${path}/shape/nodes/${node['id']}` })"
        >
          Remove
        </button>
      </div>
      <button type="button" class="link small" @click="addNode">Add a node</button>
    </fieldset>
    <fieldset v-if="document['kind'] === 'corner'" class="wide">
      <legend>Corners</legend>
      <label v-for="name in part.corners" :key="name" class="corner">
        <input
          type="checkbox"
          :checked="corners.includes(name)"
          @change="setCorner(name, ($event.target as HTMLInputElement).checked)"
        />
        {{ name.replace('.', ', ').replaceAll('-', ' ') }}
      </label>
    </fieldset>
    <AnswerField
      v-for="info in own"
      :key="info.name"
      :info="info"
      :path="path"
      :value="valueIn(document, info)"
      :choices="choicesOf(info)"
    />
    <label v-if="document['kind'] === 'shape' && shape?.kind !== 'line'" class="wide">
      Copies
      <select class="boxed" :value="pattern?.kind ?? ''" @change="setPattern(valueOf($event))">
        <option value="">one</option>
        <option value="grid">in columns and rows</option>
        <option value="around">round a centre</option>
      </select>
    </label>
    <AnswerField
      v-for="info in pattern ? fieldsOf(`pattern/${pattern.kind}`) : []"
      :key="`pattern-${info.name}`"
      :info="info"
      :path="`${path}/pattern`"
      :value="valueIn(pattern, info)"
    />
  </form>
</template>

<style scoped>
form {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 8px 12px;
  padding: 4px 18px 12px 29px;
  color: var(--second);
}
.wide {
  grid-column: 1 / -1;
}
fieldset {
  margin: 0;
  padding: 4px 8px 8px;
  border: 1px solid var(--line);
}
.node {
  display: grid;
  grid-template-columns: 1fr 1fr auto;
  gap: 8px;
  margin-bottom: 4px;
}
.corner {
  display: flex;
  gap: 8px;
}
input[type='checkbox'] {
  accent-color: var(--deep);
}
</style>
