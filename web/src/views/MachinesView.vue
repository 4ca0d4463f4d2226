<script setup lang="ts">
import { computed, onMounted, ref, shallowRef, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'

import { api, type Choices, type Machine, type MachineIn, type Stock } from '../api/client'
import BedDrawing from '../components/BedDrawing.vue'
import NewMachine from '../components/NewMachine.vue'
import ProblemNote from '../components/ProblemNote.vue'
import RowsEditor from '../components/RowsEditor.vue'
import SettingsLog from '../components/SettingsLog.vue'
import TextField from '../components/TextField.vue'
import WorkshopLayout from '../components/WorkshopLayout.vue'
import { useRecord } from '../composables/useRecord'
import { useShortcuts } from '../composables/useShortcuts'
import { useSettings } from '../stores/settings'
import { shortText } from '../units'

/** The machines: bed and axes, what beam or tool takes away, what to keep clear of, and what they were set to. */
const settings = useSettings()
const route = useRoute()
const router = useRouter()
const machines = shallowRef<Machine[] | null>(null)
const rack = shallowRef<Stock[]>([])
const choices = shallowRef<Choices | null>(null)
const removed = shallowRef<Machine | null>(null)
const adding = ref(false)
const toolDraft = ref<Record<string, string> | null>(null)
const clampDraft = ref<Record<string, string> | null>(null)

const machine = computed(
  () => machines.value?.find(({ id }) => id === Number(route.params['id'])) ?? machines.value?.[0],
)
const short = (mm: number) => shortText(mm, settings.unit)
const record = useRecord<MachineIn>(async (id, document) => {
  await api.changeMachine(id, document)
  await load()
})
useShortcuts({ undo: () => void record.undo(), redo: () => undefined })

async function load(): Promise<void> {
  machines.value = await api.machines()
}
onMounted(async () => {
  ;[choices.value, rack.value] = await Promise.all([api.choices(), api.stocks()])
  await record.tell(load)
})
watch(
  () => machine.value?.id,
  () => {
    record.problem.value = null
    toolDraft.value = clampDraft.value = null
  },
)

function change(changes: Partial<MachineIn>): Promise<boolean> {
  const { id, document } = machine.value!
  return record.edit(id, { ...document, unit: settings.unit }, changes)
}

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
  const own = machine.value!.document.speeds ?? choices.value!.usual_speeds[machine.value!.document.kind]!
  void change({ speeds: { ...own, [name]: Number(text.replace(',', '.')) || 0 } })
}

const tools = computed(() =>
  machine.value!.document.tools.map(({ name, diameter, flute_length, flutes }) => ({
    name, diameter: short(diameter), flute_length: short(flute_length), flutes: String(flutes),
  })),
) // prettier-ignore
const clamps = computed(() =>
  machine.value!.document.keep_outs.map(({ name, x, y, width, height }) => ({
    name, x: short(x), y: short(y), width: short(width), height: short(height),
  })),
) // prettier-ignore

async function changeTools(rows: Record<string, string>[]): Promise<void> {
  const inUse = rows.some(({ name }) => name === machine.value!.document.tool)
  const list = rows.map(({ name, diameter, flute_length, flutes }) => ({
    name: name!, diameter: diameter!, flute_length: flute_length!, flutes: flutes || '2',
  })) // prettier-ignore
  if (await change({ tools: list, ...(inUse ? {} : { tool: '' }) })) toolDraft.value = null
}

async function changeClamps(rows: Record<string, string>[]): Promise<void> {
  const list = rows.map(({ name, x, y, width, height }) => ({
    name: name!, x: x!, y: y!, width: width!, height: height!,
  })) // prettier-ignore
  if (await change({ keep_outs: list })) clampDraft.value = null
}

/** A tool in the spindle cuts as wide as it is, until the notebook knows better. */
function putIn(name: string): void {
  const tool = machine.value!.document.tools.find((one) => one.name === name)
  void change({ tool: name, ...(tool ? { kerf: tool.diameter } : {}) })
}

function turn(): void {
  const { bed_width, bed_height } = machine.value!.document
  void change({ bed_width: bed_height, bed_height: bed_width })
}

async function add(body: MachineIn): Promise<void> {
  const added = await api.addMachine(body)
  adding.value = false
  await load()
  await router.push({ name: 'machines', params: { id: added.id } })
}

const putAway = () =>
  record.tell(async () => {
    removed.value = machine.value!
    await api.removeMachine(removed.value.id)
    await router.push({ name: 'machines' })
    await load()
  })

const bringBack = () =>
  record.tell(async () => {
    const { id } = await api.restoreMachine(removed.value!.id)
    removed.value = null
    await load()
    await router.push({ name: 'machines', params: { id } })
  })
</script>

<template>
  <WorkshopLayout title="Machines" :about="machine?.document.name ?? ''">
    <template #list>
      <RouterLink
        v-for="one in machines ?? []"
        :key="one.id"
        :to="{ name: 'machines', params: { id: one.id } }"
        :aria-current="one.id === machine?.id ? 'page' : undefined"
      >
        <b>{{ one.document.name }}</b>
        <span class="small second">
          {{ one.document.kind }} · {{ short(one.document.bed_width) }} × {{ short(one.document.bed_height) }}
          {{ settings.unit }}
        </span>
      </RouterLink>
      <button class="link add" @click="adding = true">add a machine</button>
    </template>
    <template #actions>
      <button v-if="record.canUndo.value" class="plain" @click="record.undo">undo</button>
    </template>
    <p v-if="removed" class="removed" role="status">
      {{ removed.document.name }} is put away. <button class="link" @click="bringBack">bring it back</button>
    </p>
    <p v-if="machines?.length === 0" class="second">
      No machine yet. Its bed and what its beam takes away are enough to begin.
    </p>
    <template v-if="machine">
      <BedDrawing class="picture" :machine="machine.document" />
      <SettingsLog :machine="machine" :rack="rack" :choices="choices" />
    </template>

    <template #ledger>
      <template v-if="machine">
        <h2>The machine</h2>
        <div class="two">
          <TextField
            field="name"
            label="Name"
            words
            :text="machine.document.name"
            :problem="record.problemAt('name')"
            @commit="change({ name: $event })"
          />
          <label>
            Kind
            <select
              class="boxed"
              :value="machine.document.kind"
              @change="change({ kind: ($event.target as HTMLSelectElement).value })"
            >
              <option v-for="kind in choices?.machine_kinds" :key="kind">{{ kind }}</option>
            </select>
          </label>
          <TextField
            field="bed_width"
            :label="`Bed width, ${settings.unit}`"
            :text="short(machine.document.bed_width)"
            :problem="record.problemAt('bed_width')"
            @commit="change({ bed_width: $event })"
          />
          <TextField
            field="bed_height"
            :label="`Bed height, ${settings.unit}`"
            :text="short(machine.document.bed_height)"
            :problem="record.problemAt('bed_height')"
            @commit="change({ bed_height: $event })"
          />
          <p class="wide small second">
            {{ machine.document.bed_width >= machine.document.bed_height ? 'Landscape' : 'Portrait' }}, as
            seen by who stands before it. <button class="link" @click="turn">turn the bed</button>
          </p>
          <label class="wide">
            Coordinates start
            <select
              class="boxed"
              :value="machine.document.origin"
              @change="
                change({ origin: ($event.target as HTMLSelectElement).value as (typeof CORNERS)[number] })
              "
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
            :problem="record.problemAt('kerf')"
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
            :problem-at="record.problemAt"
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
          :problem-at="record.problemAt"
          @commit="changeClamps"
        />
        <p class="small second">
          From the bed’s lower left corner, where the sheet lies. No part is laid there.
        </p>
        <h2>Speeds, in mm/s</h2>
        <div class="two speeds">
          <TextField
            v-for="[name, label] in SPEEDS"
            :key="name"
            :field="`speeds.${name}`"
            :label="label"
            :text="machine.document.speeds ? String(machine.document.speeds[name]) : ''"
            :placeholder="String(choices?.usual_speeds[machine.document.kind]?.[name] ?? '')"
            :problem="record.problemAt(`speeds.${name}`)"
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
        <p class="away"><button class="link" @click="putAway">put this machine away</button></p>
        <ProblemNote
          v-if="record.problem.value && !record.problem.value.field"
          :problem="record.problem.value"
        />
      </template>
    </template>
  </WorkshopLayout>
  <NewMachine v-if="adding" :kinds="choices?.machine_kinds ?? []" :save="add" @close="adding = false" />
</template>

<style scoped>
.add {
  margin: 8px 12px;
}
.removed {
  margin-bottom: 8px;
  padding: 5px 10px;
  background: var(--ochre-wash);
}
.picture {
  height: 360px;
  margin-bottom: 16px;
  border: 1px solid var(--line);
}
.beside {
  align-self: end;
  padding-bottom: 5px;
}
.speeds {
  grid-template-columns: repeat(3, 1fr);
}
.away {
  margin-top: 18px;
}
a {
  color: var(--deep);
}
</style>
