<script setup lang="ts">
import { computed, ref } from 'vue'

import type { FieldInfo, Part, Step } from '../api/client'
import { asked, operationsFor, typed, type Document } from '../steps'
import ChoiceField from '../kit/ChoiceField.vue'
import FlagField from '../kit/FlagField.vue'
import type { Option } from '../kit/options'
import { useSay } from '../composables/useSay'
import { makePlacing } from '../composables/placingEdits'
import { useChoices } from '../stores/choices'
import { useSettings } from '../stores/settings'
import { useJob } from '../stores/job'
import AnswerField from './AnswerField.vue'
import FileChoice from './FileChoice.vue'
import NodeList from './NodeList.vue'

/** One step's questions, as the core describes them; every answer is an edit of its own. */
const props = defineProps<{ step: Step; part: Part; path: string }>()
const job = useJob()
const say = useSay()
const choices = useChoices()
const settings = useSettings()

const document = computed(() => props.step.document as Document)
const shape = computed(() => document.value['shape'] as (Document & { kind: string }) | undefined)
const pattern = computed(() => document.value['pattern'] as (Document & { kind: string }) | undefined)
const fieldsOf = (of: string): readonly FieldInfo[] => choices.choices?.fields[of] ?? []
/** What a place is measured from is chosen beside it. */
const PLACED = ['from_x', 'to_x', 'from_y', 'to_y', 'anchor']
const own = computed(() =>
  asked(fieldsOf(`step/${String(document.value['kind'])}`), document.value).filter(
    ({ name }) => !PLACED.includes(name),
  ),
)
const shapeFields = computed(() =>
  asked(fieldsOf(`shape/${shape.value?.kind}`), document.value).filter(
    ({ name }) => name !== 'part' && name !== 'file',
  ),
)
const nodes = computed(() => (shape.value?.['nodes'] as Document[] | undefined) ?? [])
const corners = computed(() => (document.value['corners'] as string[] | undefined) ?? [])
const others = computed(() => job.design!.parts.filter(({ id }) => id !== props.part.id))

const WORDS: Record<string, Option[]> = {
  does: [
    { value: 'add', label: 'Adds to the part' },
    { value: 'cut', label: 'Is cut out' },
    { value: 'keep', label: 'Keeps what lies inside' },
    { value: 'mark', label: 'Is marked' },
  ],
  side: [
    { value: 'auto', label: 'Keep the size' },
    { value: 'on', label: 'On the line' },
    { value: 'outside', label: 'Outside the line' },
    { value: 'inside', label: 'Inside the line' },
  ],
  which: [
    { value: 'named', label: 'Those named' },
    { value: 'all', label: 'All' },
    { value: 'outer', label: 'All that stand out' },
    { value: 'inner', label: 'All that reach in' },
  ],
  measured: [
    { value: 'corners', label: 'Its corners' },
    { value: 'flats', label: 'Its flats' },
  ],
  along: [
    { value: 'x', label: 'Across' },
    { value: 'y', label: 'Up' },
  ],
  by: [
    { value: 'gaps', label: 'Gaps' },
    { value: 'centres', label: 'Centre distances' },
  ],
  align: [
    { value: 'left', label: 'From the left' },
    { value: 'middle', label: 'Centred' },
    { value: 'right', label: 'Up to the right' },
  ],
}
const DEFAULTS: Document = { does: 'add', operation: 'engrave', side: 'auto', face: 'front', align: 'left', font: 'sans', scale: 1, turn: 0, sweep: 360, columns: 1, rows: 1, shape: 'round', angle: 90, keep: true, which: 'named', measured: 'corners', along: 'x', by: 'gaps' } // prettier-ignore

/** A place that is not counted from the part's zero is called after what it is counted from. */
function labelOf({ name }: FieldInfo): string {
  if (name !== 'x' && name !== 'y') return ''
  const said = ([`from_${name}`, `to_${name}`] as const).flatMap((of) => {
    const wanted = document.value[of]
    const found = [...props.part.lines, ...props.part.points].find((one) => one.name === wanted)
    return wanted ? [found?.says ?? String(wanted)] : []
  })
  if (!said.length) return ''
  return said.length > 1 ? `From halfway between ${said.join(' and ')}` : `From ${said[0]}`
}

function choicesOf({ name }: FieldInfo): readonly Option[] | undefined {
  return name === 'operation' ? operationsFor(document.value, choices.operations) : WORDS[name]
}

const valueIn = (holder: Document | undefined, info: FieldInfo) =>
  holder?.[info.name] ?? DEFAULTS[info.name] ?? info.default

/** Shapes that are given by their sizes: one becomes another in its place. */
const SHAPES: Option[] = [
  { value: 'rectangle', label: 'Rectangle' },
  { value: 'disc', label: 'Disc' },
  { value: 'slot', label: 'Slot with round ends' },
  { value: 'ellipse', label: 'Ellipse' },
  { value: 'polygon', label: 'Regular polygon' },
  { value: 'ring', label: 'Ring' },
]
const isSized = computed(() => SHAPES.some(({ value }) => value === shape.value?.kind))
const reshape = (to: string) =>
  makePlacing({ act: 'shape', part: props.part.id, steps: [props.step.id], to, unit: settings.unit })

const COPIES: Option[] = [
  { value: '', label: 'One' },
  { value: 'grid', label: 'In columns and rows' },
  { value: 'around', label: 'Round a centre' },
  { value: 'spread', label: 'Spread evenly' },
]

/** A line has no width that could be spread evenly. */
const copies = computed(() => {
  if (document.value['kind'] === 'repeat') return COPIES.slice(1, 3)
  return shape.value?.kind === 'line' ? COPIES.slice(0, 3) : COPIES
})

/** Two copies as far apart as two of what is drawn, so that the next count fits, whatever the size. */
function setPattern(kind: string): void {
  const size = typed(shape.value?.['width'] ?? shape.value?.['diameter'] ?? shape.value?.['height'])
  const plain = Number(size.text.replace(',', '.'))
  const apart = { text: !size.text ? '10' : plain ? String(2 * plain) : `2*(${size.text})`, unit: size.unit }
  const grid = { kind, columns: 2, rows: 1, dx: apart, dy: apart }
  const around = { kind, count: 6, x: document.value['x'] ?? '0', y: document.value['y'] ?? '0' }
  const spread = { kind, count: 3 }
  const some = { grid, around, spread }[kind]
  void job.put(`${props.path}/pattern`, some ?? null)
}

/** Copies are sent together: forty at ten millimetres may not fit, forty at three may, whichever is typed first. What was refused
 * goes along with what is typed next. */
const typedCopies = ref<Document>({})

async function setCopies({ name, kind }: FieldInfo, value: unknown): Promise<void> {
  const given = kind === 'length' ? { text: String(value), unit: settings.unit } : value
  const sent: Document = { ...typedCopies.value, [name]: given }
  typedCopies.value = sent
  if (!(await job.put(`${props.path}/pattern`, { ...pattern.value, ...sent }))) return
  const waiting = Object.entries(typedCopies.value).filter(([key, one]) => sent[key] !== one)
  typedCopies.value = Object.fromEntries(waiting)
}

function setCorner(name: string, on: boolean): void {
  const chosen = on ? [...corners.value, name] : corners.value.filter((one) => one !== name)
  void job.put(`${props.path}/corners`, chosen)
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
    <ChoiceField
      v-if="isSized"
      class="wide"
      label="Shape"
      :field="`${path}/shape`"
      :options="SHAPES"
      :model-value="shape!.kind"
      :problem="job.problemAt(`${path}/shape`)"
      @update:model-value="reshape"
    />
    <ChoiceField
      v-if="shape?.kind === 'part'"
      class="wide"
      label="Part"
      :options="others.map(({ id, title }) => ({ value: id, label: title }))"
      :model-value="String(shape['part'])"
      @update:model-value="job.put(`${path}/shape/part`, $event)"
    />
    <FileChoice v-if="shape?.kind === 'imported'" class="wide" :path="`${path}/shape/file`" />
    <p v-for="note in step.notes" :key="note" class="wide small">{{ say.sentence(note) }}</p>
    <NodeList v-if="nodes.length" class="wide" :nodes="nodes" :part="part.id" :step="step.id" />
    <fieldset v-if="document['kind'] === 'corner' && (document['which'] ?? 'named') === 'named'" class="wide">
      <legend>Corners</legend>
      <FlagField
        v-for="name in part.corners"
        :key="name"
        :label="name.replace('.', ', ').replaceAll('-', ' ')"
        :model-value="corners.includes(name)"
        @update:model-value="setCorner(name, $event)"
      />
    </fieldset>
    <AnswerField
      v-for="info in own"
      :key="info.name"
      :info="info"
      :label="labelOf(info)"
      :path="path"
      :value="valueIn(document, info)"
      :choices="choicesOf(info)"
    />
    <ChoiceField
      v-if="document['kind'] === 'shape' || document['kind'] === 'repeat'"
      class="wide"
      label="Copies"
      :field="`${path}/pattern`"
      :options="copies"
      :model-value="pattern?.kind ?? ''"
      :problem="job.problemAt(`${path}/pattern`)"
      @update:model-value="setPattern"
    />
    <AnswerField
      v-for="info in pattern ? fieldsOf(`pattern/${pattern.kind}`) : []"
      :key="`pattern-${info.name}`"
      :info="info"
      :path="`${path}/pattern`"
      :value="valueIn(pattern, info)"
      :send="setCopies"
    />
  </form>
</template>

<style scoped>
form {
  display: grid;
  grid-template-columns: 1fr 1fr;
  align-items: end;
  gap: 8px 12px;
  padding: 4px 18px 12px 29px;
}
.wide {
  grid-column: 1 / -1;
}
fieldset {
  margin: 0;
  padding: 4px 8px 8px;
  border: 1px solid var(--line);
}
legend {
  color: var(--second);
}
</style>
