<script setup lang="ts">
import { computed, ref, watch } from 'vue'

import type { Choices, Machine, MachineChange, Problem } from '../api/client'
import { useSay } from '../composables/useSay'
import ChoiceField from '../kit/ChoiceField.vue'
import { optionsOf } from '../kit/options'
import PickField from '../kit/PickField.vue'
import { MM_PER_INCH } from '../units'
import RowsEditor from './RowsEditor.vue'
import TextField from '../kit/TextField.vue'

/** What is written down of a machine, each figure edited where it stands. */
const props = defineProps<{
  machine: Machine
  choices: Choices
  change: (changes: MachineChange) => Promise<boolean>
  problemAt: (field: string) => Problem | null
}>()
const say = useSay()
const toolDraft = ref<Record<string, string> | null>(null)
const clampDraft = ref<Record<string, string> | null>(null)
const short = (mm: number) => say.short(mm)

watch(
  () => props.machine.id,
  () => (toolDraft.value = clampDraft.value = null),
)

const CORNERS = ['lower left', 'lower right', 'upper right', 'upper left'] as const
const SPEEDS = [
  ['cut', 'Cut'],
  ['score', 'Score, fold'],
  ['engrave', 'Engrave'],
  ['pocket', 'Pocket'],
  ['travel', 'Travel'],
  ['acceleration', 'Acceleration'],
] as const
type Corner = (typeof CORNERS)[number]
type SpeedName = (typeof SPEEDS)[number][0]

function changeSpeed(name: SpeedName, text: string): void {
  const own = props.machine.document.speeds ?? props.choices.usual_speeds[props.machine.document.kind]!
  const typed = Number(text.replace(',', '.')) || 0
  void props.change({ speeds: { ...own, [name]: say.unit === 'in' ? typed * MM_PER_INCH : typed } })
}

const tools = computed(() =>
  props.machine.document.tools.map(({ name, diameter, flute_length, flutes }) => ({
    name, diameter: short(diameter), flute_length: short(flute_length), flutes: String(flutes),
  })),
) // prettier-ignore
const clamps = computed(() =>
  props.machine.document.keep_outs.map(({ name, x, y, width, height }) => ({
    name, x: short(x), y: short(y), width: short(width), height: short(height),
  })),
) // prettier-ignore

async function changeTools(rows: Record<string, string>[]): Promise<void> {
  const inUse = rows.some(({ name }) => name === props.machine.document.tool)
  const list = rows.map(({ name, diameter, flute_length, flutes }) => ({
    name: name!, diameter: diameter!, flute_length: flute_length!, flutes: flutes || '2',
  })) // prettier-ignore
  if (await props.change({ tools: list, ...(inUse ? {} : { tool: '' }) })) toolDraft.value = null
}

async function changeClamps(rows: Record<string, string>[]): Promise<void> {
  const list = rows.map(({ name, x, y, width, height }) => ({
    name: name!, x: x!, y: y!, width: width!, height: height!,
  })) // prettier-ignore
  if (await props.change({ keep_outs: list })) clampDraft.value = null
}

/** The kerf follows the tool; it is named here so that taking the step back brings both back. */
function putIn(tool: string): void {
  void props.change({ tool, kerf: props.machine.document.kerf })
}

const shape = computed(() => {
  const { bed_width, bed_height } = props.machine.document
  return bed_width === bed_height ? 'Square' : bed_width > bed_height ? 'Landscape' : 'Portrait'
})

function turn(): void {
  const { bed_width, bed_height } = props.machine.document
  void props.change({ bed_width: bed_height, bed_height: bed_width })
}
</script>

<template>
  <h2>The machine</h2>
  <div class="two">
    <TextField
      field="name"
      label="Name"
      words
      :text="machine.document.name"
      :problem="problemAt('name')"
      @commit="change({ name: $event })"
    />
    <ChoiceField
      label="Kind"
      :options="optionsOf(choices.machine_kinds)"
      :model-value="machine.document.kind"
      @update:model-value="change({ kind: $event })"
    />
    <TextField
      field="bed_width"
      label="Bed width"
      :unit="say.unit"
      :text="short(machine.document.bed_width)"
      :problem="problemAt('bed_width')"
      @commit="change({ bed_width: $event })"
    />
    <TextField
      field="bed_height"
      label="Bed height"
      :unit="say.unit"
      :text="short(machine.document.bed_height)"
      :problem="problemAt('bed_height')"
      @commit="change({ bed_height: $event })"
    />
    <p class="wide small second">
      {{ shape }}, seen from the front. <ElButton link size="small" @click="turn">Turn the bed</ElButton>
    </p>
    <ChoiceField
      class="wide"
      label="Origin"
      :options="optionsOf(CORNERS)"
      :model-value="machine.document.origin"
      @update:model-value="change({ origin: $event as Corner })"
    />
    <PickField
      label="x grows to the"
      :options="optionsOf(['right', 'left'])"
      :model-value="machine.document.x_axis"
      @update:model-value="change({ x_axis: $event as 'right' | 'left' })"
    />
    <PickField
      label="y grows"
      :options="optionsOf(['up', 'down'])"
      :model-value="machine.document.y_axis"
      @update:model-value="change({ y_axis: $event as 'up' | 'down' })"
    />
    <TextField
      field="kerf"
      label="Kerf"
      :unit="say.unit"
      :text="short(machine.document.kerf)"
      :problem="problemAt('kerf')"
      @commit="change({ kerf: $event })"
    />
    <p class="small second beside">
      Used until the <RouterLink :to="{ name: 'notebook' }">notebook</RouterLink> has the board.
    </p>
  </div>
  <template v-if="machine.document.kind === 'router'">
    <h2>Tools, {{ say.unit }}</h2>
    <RowsEditor
      v-model:draft="toolDraft"
      :columns="[
        { name: 'name', label: 'Name', words: true },
        { name: 'diameter', label: 'Diameter' },
        { name: 'flute_length', label: 'Flute' },
        { name: 'flutes', label: 'Flutes' },
      ]"
      :rows="tools"
      field="tools"
      add="Add a tool"
      :problem-at="problemAt"
      @commit="changeTools"
    />
    <ChoiceField
      v-if="machine.document.tools.length"
      label="In the spindle"
      :options="[
        { value: '', label: 'None of them' },
        ...optionsOf(machine.document.tools.map(({ name }) => name)),
      ]"
      :model-value="machine.document.tool"
      @update:model-value="putIn"
    />
  </template>
  <h2>Keep-out areas, {{ say.unit }}</h2>
  <RowsEditor
    v-model:draft="clampDraft"
    :columns="[
      { name: 'name', label: 'Name', words: true },
      { name: 'x', label: 'x' },
      { name: 'y', label: 'y' },
      { name: 'width', label: 'Width' },
      { name: 'height', label: 'Height' },
    ]"
    :rows="clamps"
    field="keep_outs"
    add="Add an area"
    :problem-at="problemAt"
    @commit="changeClamps"
  />
  <p class="small second">Measured from the lower left corner of the bed. No part is placed there.</p>
  <h2>Speeds</h2>
  <div class="two speeds">
    <TextField
      v-for="[name, label] in SPEEDS"
      :key="name"
      :field="`speeds.${name}`"
      :label="label"
      :unit="name === 'acceleration' ? `${say.unit}/s²` : `${say.unit}/s`"
      :text="machine.document.speeds ? say.short(machine.document.speeds[name]) : ''"
      :placeholder="say.short(choices.usual_speeds[machine.document.kind]?.[name] ?? 0)"
      :problem="problemAt(`speeds.${name}`)"
      @commit="changeSpeed(name, $event)"
    />
  </div>
  <p class="small second">
    <template v-if="machine.document.speeds">Times are estimated with these speeds.</template>
    <template v-else>Grey values are defaults for this kind of machine.</template>
    <ElButton v-if="machine.document.speeds" link size="small" @click="change({ speeds: null })">
      Use the defaults
    </ElButton>
  </p>
</template>

<style scoped>
.beside {
  align-self: end;
  padding-bottom: 5px;
}
.speeds {
  margin-bottom: 4px;
}
</style>
