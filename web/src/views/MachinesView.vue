<script setup lang="ts">
import { computed, onMounted, ref, shallowRef, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'

import {
  api,
  type Choices,
  type Machine,
  type MachineChange,
  type MachineIn,
  type Stock,
} from '../api/client'
import BedDrawing from '../components/BedDrawing.vue'
import MachineLedger from '../components/MachineLedger.vue'
import NewMachine from '../components/NewMachine.vue'
import ProblemNote from '../components/ProblemNote.vue'
import SettingsLog from '../components/SettingsLog.vue'
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

const machine = computed(
  () => machines.value?.find(({ id }) => id === Number(route.params['id'])) ?? machines.value?.[0],
)
const short = (mm: number) => shortText(mm, settings.unit)
/** Numbers stay mm whatever unit is shown; only what is typed counts in it. */
const record = useRecord<MachineChange>(
  (id) => machines.value!.find((one) => one.id === id)!.document,
  async (id, changes) => {
    await api.changeMachine(id, { ...changes, unit: settings.unit })
    await load()
  },
)
const change = (changes: MachineChange) => record.edit(machine.value!.id, changes)
useShortcuts({ undo: () => void record.undo(), redo: () => void record.redo() })

async function load(): Promise<void> {
  machines.value = await api.machines()
}
onMounted(async () => {
  ;[choices.value, rack.value] = await Promise.all([api.choices(), api.stocks()])
  await record.tell(load)
})
watch(
  () => machine.value?.id,
  () => (record.problem.value = null),
)

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
      <button v-if="record.canRedo.value" class="plain" @click="record.redo">redo</button>
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
        <MachineLedger
          v-if="choices"
          :machine="machine"
          :choices="choices"
          :change="change"
          :problem-at="record.problemAt"
        />
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
.away {
  margin-top: 18px;
}
</style>
