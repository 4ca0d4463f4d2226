<script setup lang="ts">
import { computed, onMounted } from 'vue'

import type { InFile, Operation, Problem, ProfileValues } from '../api/client'
import { useSay } from '../composables/useSay'
import { WORKS } from '../formats'
import ChoiceWord from '../kit/ChoiceWord.vue'
import type { Option } from '../kit/options'
import WordInput from '../kit/WordInput.vue'
import { useChoices } from '../stores/choices'
import ProblemNote from './ProblemNote.vue'
import WorkSentence from './WorkSentence.vue'

/** What a receiver gets, as sentences with strokes: what is done in which order, and how the drawing lies. Dotted words are changed
 * in place; every change makes a new profile. */
const props = defineProps<{ profile: ProfileValues; file: InFile | null; problem: Problem | null }>()
const emit = defineEmits<{ change: [profile: ProfileValues]; look: [operation: Operation | null] }>()
const say = useSay()

const change = (values: Partial<ProfileValues>) => emit('change', { ...props.profile, ...values })

/** The kinds of work that the file holds, in its order; several layers of one kind, pockets of several depths, as one. */
const works = computed(() => {
  const found = new Map<
    Operation,
    { paths: number; openings: number; seconds: number; setting: string; note: string }
  >()
  for (const one of props.file?.works ?? []) {
    const before = found.get(one.operation) ?? { paths: 0, openings: 0, seconds: 0 }
    found.set(one.operation, {
      paths: before.paths + one.paths,
      openings: before.openings + one.openings,
      seconds: before.seconds + one.seconds,
      setting: one.setting,
      note: one.setting_not_used && `${say.sentence(one.setting_not_used)}, ${say.date(one.setting_date)}`,
    })
  }
  return [...found].map(([operation, rest]) => ({ operation, ...rest }))
})
const present = computed(() => new Set(works.value.map(({ operation }) => operation)))
const leftOut = computed(() => props.profile.order.filter((one) => !props.profile.layers[one]!.include))

function changeLayer(operation: Operation, values: Partial<ProfileValues['layers'][string]>): void {
  const layer = props.profile.layers[operation]!
  change({ layers: { ...props.profile.layers, [operation]: { ...layer, ...values } } })
}

/** To the place of another kind of work; those that are not in this file keep theirs. */
function move(operation: Operation, to: Operation): void {
  const order = props.profile.order.filter((one) => one !== operation)
  const before = props.profile.order.indexOf(operation) > props.profile.order.indexOf(to)
  order.splice(order.indexOf(to) + (before ? 0 : 1), 0, operation)
  change({ order })
}

const shared = useChoices()
onMounted(shared.load)
const formats = computed(() =>
  shared.formats.map(({ format, title, about }) => ({ value: format, label: title, detail: about })),
)
const UNITS: Option<ProfileValues['unit']>[] = [
  { value: 'mm', label: 'millimetres' },
  { value: 'in', label: 'inches' },
]
const ORIGINS: Option<ProfileValues['origin']>[] = [
  { value: 'plain', label: 'its usual corner', detail: 'as the format has it' },
  { value: 'lower left', label: 'the lower left' },
  { value: 'upper left', label: 'the upper left' },
  { value: 'lower right', label: 'the lower right' },
  { value: 'upper right', label: 'the upper right' },
  { value: 'centre', label: 'the centre' },
]
const SPLITS: Option<ProfileValues['split']>[] = [
  { value: 'sheet', label: 'sheet' },
  { value: 'part', label: 'part' },
  { value: 'operation', label: 'kind of work on a sheet' },
]
const WITH: Option[] = [
  { value: 'with', label: 'with' },
  { value: 'without', label: 'without' },
]
const word = (on: boolean) => (on ? 'with' : 'without')

/** The profile's lengths are mm; what is typed counts in the unit that is shown. */
const lengthOf = (value: number | string) => (typeof value === 'number' ? say.short(value) : value)
const typedIn = (text: string) => (say.unit === 'in' && /^[\d\s.,/]+$/.test(text) ? `${text} in` : text)
const wrong = (field: string) => props.problem?.field === field
</script>

<template>
  <div>
    <ol aria-label="In this order">
      <WorkSentence
        v-for="(work, i) in works"
        :key="work.operation"
        v-bind="work"
        :index="i"
        :last="i === works.length - 1"
        :layer="profile.layers[work.operation]!"
        :engrave="profile.engrave"
        :hatch="lengthOf(profile.hatch_mm)"
        :wrong="wrong(`layers.${work.operation}.name`)"
        :before="works[i - 1]?.operation ?? null"
        :after="works[i + 1]?.operation ?? null"
        @layer="changeLayer(work.operation, $event)"
        @engrave="change({ engrave: $event })"
        @hatch="change({ hatch_mm: typedIn($event) })"
        @move="move(work.operation, $event)"
        @drop="(dragged) => move(dragged, work.operation)"
        @look="emit('look', $event)"
      />
    </ol>
    <p v-if="leftOut.length" class="out small">
      Left out:
      <template v-for="(operation, i) in leftOut" :key="operation">
        {{ i ? ', ' : '' }}{{ WORKS[operation] }}
        <ElButton link size="small" @click="changeLayer(operation, { include: true })">put in</ElButton>
      </template>
    </p>
    <p v-if="file && !present.size" class="out ochre">Nothing would be in this file: put something in.</p>
    <p class="how">
      In
      <ChoiceWord
        label="Format"
        :options="formats"
        :model-value="profile.format"
        @update:model-value="change({ format: $event })"
      />,
      <ChoiceWord
        label="Unit of the file"
        :options="UNITS"
        :model-value="profile.unit"
        @update:model-value="change({ unit: $event })"
      />, from
      <ChoiceWord
        label="Origin"
        :options="ORIGINS"
        :model-value="profile.origin"
        @update:model-value="change({ origin: $event })"
      /><template v-if="profile.format.startsWith('dxf')"
        >, y
        <ChoiceWord
          label="Direction of y"
          :options="[
            { value: 'up', label: 'upwards' },
            { value: 'down', label: 'downwards' },
          ]"
          :model-value="profile.y_down ? 'down' : 'up'"
          @update:model-value="change({ y_down: $event === 'down' })" /></template
      >; lines
      <WordInput
        label="Line width"
        field="stroke_mm"
        figure
        :text="lengthOf(profile.stroke_mm)"
        :wrong="wrong('stroke_mm')"
        @commit="change({ stroke_mm: typedIn($event) })"
      />
      {{ say.unit }} wide. One file for each
      <ChoiceWord
        label="One file for each"
        :options="SPLITS"
        :model-value="profile.split"
        @update:model-value="change({ split: $event })"
      />,
      <ChoiceWord
        label="Part names"
        :options="WITH"
        :model-value="word(profile.labels)"
        @update:model-value="change({ labels: $event === 'with' })"
      />
      part names,
      <ChoiceWord
        label="Reference square"
        :options="WITH"
        :model-value="word(profile.reference_square)"
        @update:model-value="change({ reference_square: $event === 'with' })"
      />
      a square of 100 mm, lead-ins of
      <WordInput
        label="Lead-ins"
        field="lead_in_mm"
        figure
        :text="lengthOf(profile.lead_in_mm)"
        :wrong="wrong('lead_in_mm')"
        @commit="change({ lead_in_mm: typedIn($event) })"
      />
      {{ say.unit }}.
    </p>
    <ProblemNote v-if="problem" :problem="problem" />
    <p class="small second hint">Drag a number, or press Alt with Up or Down on it, to change the order.</p>
  </div>
</template>

<style scoped>
.out,
.how,
.hint {
  padding: 7px 18px;
}
.how {
  border-top: 1px solid var(--line);
  line-height: 1.75;
}
</style>
