<script setup lang="ts">
import { computed } from 'vue'

import type { Part, Step } from '../api/client'
import ChoiceField from '../kit/ChoiceField.vue'
import type { usePlacing } from '../composables/usePlacing'
import { useJob } from '../stores/job'
import { useSettings } from '../stores/settings'

/** What a step's place is measured from: chosen here or clicked on the drawing; the step stays where it is. */
const props = defineProps<{
  part: Part
  step: Step
  path: string
  placing: ReturnType<typeof usePlacing>
  picking: boolean
}>()
defineEmits<{ pick: [] }>()
const job = useJob()
const settings = useSettings()

const document = computed(() => props.step.document as Record<string, string | undefined>)
const ids = computed(() => props.part.steps.map(({ id }) => id))
const isBefore = (step: string) => ids.value.indexOf(step) < ids.value.indexOf(props.step.id)

const UPRIGHT = 1e-6
function choicesFor(axis: 'x' | 'y', points: boolean) {
  const along = axis === 'x' ? [0, 2] : [1, 3]
  const lines = props.part.lines.filter(
    ({ step, ends }) =>
      isBefore(step) && (points || Math.abs(ends[along[0]!]! - ends[along[1]!]!) < UPRIGHT || slanted(ends)),
  )
  const places = props.part.points.filter(({ step }) => isBefore(step))
  return [
    { value: '', label: 'the part’s zero' },
    ...lines.map(({ name, says }) => ({ value: name, label: says, group: 'Edges' })),
    ...places.map(({ name, says }) => ({ value: name, label: says, group: 'Corners, middles, centres' })),
  ]
}
const slanted = ([x0, y0, x1, y1]: readonly number[]) =>
  Math.abs(x1! - x0!) > UPRIGHT && Math.abs(y1! - y0!) > UPRIGHT

const ANCHORS = [
  { value: '', label: 'its own zero; from an edge, what is nearest' },
  ...['centre', 'left', 'right', 'bottom', 'top', 'bottom-left', 'bottom-right', 'top-left', 'top-right'].map(
    (name) => ({ value: name, label: `its ${name.replace('-', ' ')}` }),
  ),
]
const asked = (axis: 'x' | 'y', of: string) =>
  props.placing.ask({
    act: 'from',
    part: props.part.id,
    steps: [props.step.id],
    of,
    axis,
    unit: settings.unit,
  })
const half = (axis: 'x' | 'y', to: string) =>
  to
    ? props.placing.ask({ act: 'between', part: props.part.id, steps: [props.step.id], of: document.value[`from_${axis}`] ?? '', to, axis, unit: settings.unit }) // prettier-ignore
    : asked(axis, document.value[`from_${axis}`] ?? '')
</script>

<template>
  <div class="place">
    <p class="acts">
      <ElButton size="small" :type="picking ? 'primary' : ''" @click="$emit('pick')">
        {{ picking ? 'Click an edge or a point …' : 'Measure from an edge or a point' }}
      </ElButton>
    </p>
    <template v-for="axis in ['x', 'y'] as const" :key="axis">
      <ChoiceField
        :label="axis === 'x' ? 'Across, from' : 'Up, from'"
        :field="`${path}/from_${axis}`"
        :options="choicesFor(axis, false)"
        :model-value="document[`from_${axis}`] ?? ''"
        :problem="job.problemAt(`${path}/from_${axis}`)"
        @update:model-value="asked(axis, $event)"
      />
      <ChoiceField
        v-if="document[`from_${axis}`]"
        label="halfway to"
        :field="`${path}/to_${axis}`"
        :options="
          choicesFor(axis, true).map((one) => (one.value ? one : { value: '', label: 'nothing: a distance' }))
        "
        :model-value="document[`to_${axis}`] ?? ''"
        :problem="job.problemAt(`${path}/to_${axis}`)"
        @update:model-value="half(axis, $event)"
      />
    </template>
    <ChoiceField
      label="To"
      :field="`${path}/anchor`"
      :options="ANCHORS"
      :model-value="document['anchor'] ?? ''"
      :problem="job.problemAt(`${path}/anchor`)"
      @update:model-value="job.put(`${path}/anchor`, $event)"
    />
  </div>
</template>

<style scoped>
.place {
  display: grid;
  gap: 8px;
  padding: 4px 18px 8px 29px;
}
</style>
