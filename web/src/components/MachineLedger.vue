<script setup lang="ts">
import { computed, ref, watch } from 'vue'

import type { Choices, Machine, MachineChange, Problem } from '../api/client'
import { useSettings } from '../stores/settings'
import { shortText } from '../units'
import RowsEditor from './RowsEditor.vue'
import TextField from './TextField.vue'

/** What is written down of a machine, each figure edited where it stands. */
const props = defineProps<{
  machine: Machine
  choices: Choices
  change: (changes: MachineChange) => Promise<boolean>
  problemAt: (field: string) => Problem | null
}>()
const settings = useSettings()
const toolDraft = ref<Record<string, string> | null>(null)
const clampDraft = ref<Record<string, string> | null>(null)
const short = (mm: number) => shortText(mm, settings.unit)

watch(
  () => props.machine.id,
  () => (toolDraft.value = clampDraft.value = null),
)

const CORNERS = ['lower left', 'lower right', 'upper right', 'upper left'] as const
const SPEEDS = [
  ['cut', 'cut'],
  ['score', 'score, fold'],
  ['engrave', 'engrave'],
  ['pocket', 'pocket'],
  ['travel', 'travel'],
  ['acceleration', 'acceleration'],
] as const
type SpeedName = (typeof SPEEDS)[number][0]

function changeSpeed(name: SpeedName, text: string): void {
  const own = props.machine.document.speeds ?? props.choices.usual_speeds[props.machine.document.kind]!
  void props.change({ speeds: { ...own, [name]: Number(text.replace(',', '.')) || 0 } })
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
    <label>
      Kind
      <select
        class="boxed"
        :value="machine.document.kind"
        @change="change({ kind: ($event.target as HTMLSelectElement).value })"
      >
        <option v-for="kind in choices.machine_kinds" :key="kind">{{ kind }}</option>
      </select>
    </label>
    <TextField
      field="bed_width"
      :label="`Bed width, ${settings.unit}`"
      :text="short(machine.document.bed_width)"
      :problem="problemAt('bed_width')"
      @commit="change({ bed_width: $event })"
    />
    <TextField
      field="bed_height"
      :label="`Bed height, ${settings.unit}`"
      :text="short(machine.document.bed_height)"
      :problem="problemAt('bed_height')"
      @commit="change({ bed_height: $event })"
    />
    <p class="wide small second">
      {{ shape }}, as seen by who stands before it. <button class="link" @click="turn">turn the bed</button>
    </p>
    <label class="wide">
      Coordinates start
      <select
        class="boxed"
        :value="machine.document.origin"
        @change="change({ origin: ($event.target as HTMLSelectElement).value as (typeof CORNERS)[number] })"
      >
        <option v-for="corner in CORNERS" :key="corner">{{ corner }}</option>
      </select>
    </label>
    <label>
      x grows to the
      <select
        class="boxed"
        :value="machine.document.x_axis"
        @change="change({ x_axis: ($event.target as HTMLSelectElement).value as 'right' | 'left' })"
      >
        <option>right</option>
        <option>left</option>
      </select>
    </label>
    <label>
      y grows
      <select
        class="boxed"
        :value="machine.document.y_axis"
        @change="change({ y_axis: ($event.target as HTMLSelectElement).value as 'up' | 'down' })"
      >
        <option>up</option>
        <option>down</option>
      </select>
    </label>
    <TextField
      field="kerf"
      :label="`Kerf, ${settings.unit}`"
      :text="short(machine.document.kerf)"
      :problem="problemAt('kerf')"
      @commit="change({ kerf: $event })"
    />
    <p class="small second beside">
      until the <RouterLink :to="{ name: 'notebook' }">kerf notebook</RouterLink> knows it for the board
    </p>
  </div>
  <template v-if="machine.document.kind === 'router'">
    <h2>Tools, in {{ settings.unit }}</h2>
    <RowsEditor
      v-model:draft="toolDraft"
      :columns="[
        { name: 'name', label: 'name', words: true },
        { name: 'diameter', label: 'diameter' },
        { name: 'flute_length', label: 'flute' },
        { name: 'flutes', label: 'flutes' },
      ]"
      :rows="tools"
      field="tools"
      add="add a tool"
      :problem-at="problemAt"
      @commit="changeTools"
    />
    <label v-if="machine.document.tools.length">
      In the spindle
      <select
        class="boxed"
        :value="machine.document.tool"
        @change="putIn(($event.target as HTMLSelectElement).value)"
      >
        <option value="">none of them</option>
        <option v-for="tool in machine.document.tools" :key="tool.name">{{ tool.name }}</option>
      </select>
    </label>
  </template>
  <h2>Keep clear of, in {{ settings.unit }}</h2>
  <RowsEditor
    v-model:draft="clampDraft"
    :columns="[
      { name: 'name', label: 'what', words: true },
      { name: 'x', label: 'x' },
      { name: 'y', label: 'y' },
      { name: 'width', label: 'width' },
      { name: 'height', label: 'height' },
    ]"
    :rows="clamps"
    field="keep_outs"
    add="add a clamp"
    :problem-at="problemAt"
    @commit="changeClamps"
  />
  <p class="small second">From the bed’s lower left corner, where the sheet lies. No part is laid there.</p>
  <h2>Speeds, in mm/s</h2>
  <div class="two speeds">
    <TextField
      v-for="[name, label] in SPEEDS"
      :key="name"
      :field="`speeds.${name}`"
      :label="label"
      :text="machine.document.speeds ? String(machine.document.speeds[name]) : ''"
      :placeholder="String(choices.usual_speeds[machine.document.kind]?.[name] ?? '')"
      :problem="problemAt(`speeds.${name}`)"
      @commit="changeSpeed(name, $event)"
    />
  </div>
  <p class="small second">
    {{
      machine.document.speeds
        ? 'Its own; times are estimated with them.'
        : 'Grey: usual for its kind. Type one to make them its own.'
    }}
    <button v-if="machine.document.speeds" class="link" @click="change({ speeds: null })">
      use the usual ones
    </button>
  </p>
</template>

<style scoped>
.beside {
  align-self: end;
  padding-bottom: 5px;
}
.speeds {
  grid-template-columns: repeat(3, 1fr);
}
a {
  color: var(--deep);
}
</style>
