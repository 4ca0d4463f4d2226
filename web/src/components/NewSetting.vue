<script setup lang="ts">
import { computed, reactive, ref } from 'vue'

import { api, type CutSetting, type Machine, type Operation, type Stock } from '../api/client'
import { useProblem } from '../composables/useProblem'
import { useSay } from '../composables/useSay'
import ChoiceField from '../kit/ChoiceField.vue'
import { optionsOf } from '../kit/options'
import PlainField from '../kit/PlainField.vue'
import { useChoices } from '../stores/choices'
import { MM_PER_INCH } from '../units'
import ProblemNote from './ProblemNote.vue'

/** A setting to add to a machine's log, from the numbers of another one or from nothing. */
const props = defineProps<{
  machine: Machine
  stock: Stock
  operation: Operation
  start: Partial<CutSetting>
}>()
const emit = defineEmits<{ added: []; cancel: [] }>()
const say = useSay()
const choices = useChoices()
const { problem, tell } = useProblem()
const busy = ref(false)
const isLaser = computed(() => props.machine.document.kind === 'laser')

interface Asked {
  name: 'power' | 'speed' | 'passes' | 'spindle' | 'feed' | 'depth' | 'ramp'
  label: string
  unit: string
  /** A length, or one in a time: typed in the unit that is shown. */
  long?: boolean
}
const numbers = computed<Asked[]>(() =>
  isLaser.value
    ? [
        { name: 'power', label: 'Power', unit: '%' },
        { name: 'speed', label: 'Speed', unit: `${say.unit}/s`, long: true },
        { name: 'passes', label: 'Passes', unit: '' },
      ]
    : [
        { name: 'spindle', label: 'Spindle', unit: 'rpm' },
        { name: 'feed', label: 'Feed', unit: `${say.unit}/min`, long: true },
        { name: 'depth', label: 'Depth of a pass', unit: say.unit, long: true },
        { name: 'passes', label: 'Passes', unit: '' },
        { name: 'ramp', label: 'Ramp', unit: '°' },
      ],
)

const draft = reactive<Record<string, string>>({ result: props.start.result ?? 'clean', note: '' })
for (const { name, long } of numbers.value) {
  const value = props.start[name]
  draft[name] = value == null ? '' : long ? say.short(Number(value)) : String(value)
}

/** What is typed in inches goes as mm, which the log is kept in; anything that is no number goes as it is, to be refused. */
function given({ name, long }: Asked): string | null {
  const text = draft[name]?.trim() ?? ''
  const value = Number(text.replace(',', '.'))
  if (!text) return null
  return long && say.unit === 'in' && Number.isFinite(value) ? String(value * MM_PER_INCH) : text
}

async function add(): Promise<void> {
  const { name, kind } = props.stock.document
  busy.value = true
  const done = await tell(async () => {
    await api.addSetting(props.machine.id, {
      stock: name,
      kind,
      thickness: props.stock.thickness,
      operation: props.operation,
      result: draft['result']!,
      note: draft['note']!,
      tool: isLaser.value ? '' : props.machine.document.tool,
      ...Object.fromEntries(numbers.value.map((asked) => [asked.name, given(asked)])),
    })
  })
  busy.value = false
  if (done) emit('added')
}

const known = computed(() => numbers.value.some(({ name }) => name === problem.value?.field))
</script>

<template>
  <form class="card" @submit.prevent="add">
    <PlainField
      v-for="{ name, label, unit } in numbers"
      :key="name"
      v-model="draft[name]!"
      :label="label"
      :unit="unit"
      :field="name"
      :problem="problem?.field === name ? problem : null"
    />
    <ChoiceField
      v-model="draft['result']!"
      label="Result"
      :options="optionsOf(choices.choices?.results ?? [])"
    />
    <PlainField v-model="draft['note']!" class="note" label="Note" words />
    <p class="acts all">
      <ElButton type="primary" native-type="submit" :loading="busy">Add setting</ElButton>
      <ElButton link @click="emit('cancel')">Cancel</ElButton>
    </p>
    <ProblemNote v-if="problem && !known" class="all" :problem="problem" />
  </form>
</template>

<style scoped>
form {
  display: flex;
  flex-wrap: wrap;
  align-items: start;
  gap: 8px 10px;
  margin: 10px 0;
  border-top: 3px solid var(--deep);
}
.field {
  width: 9rem;
}
.note {
  width: 16rem;
}
.all {
  flex-basis: 100%;
}
</style>
