<script setup lang="ts">
import { onMounted, shallowRef } from 'vue'

import {
  api,
  type Choices,
  type Machine,
  type MachineChange,
  type MachineIn,
  type Stock,
} from '../api/client'
import ArchiveButton from '../components/ArchiveButton.vue'
import ArchivedList from '../components/ArchivedList.vue'
import BedDrawing from '../components/BedDrawing.vue'
import MachineLedger from '../components/MachineLedger.vue'
import NewMachine from '../components/NewMachine.vue'
import ProblemNote from '../components/ProblemNote.vue'
import SettingsLog from '../components/SettingsLog.vue'
import WorkshopLayout from '../components/WorkshopLayout.vue'
import { useShelf } from '../composables/useShelf'
import { useSettings } from '../stores/settings'
import { shortText } from '../units'

/** The machines: bed and axes, what beam or tool takes away, what to keep clear of, and what they were set to. */
const settings = useSettings()
const shelf = useShelf<Machine, MachineIn, MachineChange>('machines', {
  list: api.machines,
  add: api.addMachine,
  change: api.changeMachine,
  remove: api.removeMachine,
  restore: api.restoreMachine,
  archived: api.archivedMachines,
})
const { all: machines, one: machine, archived, adding, record } = shelf
const rack = shallowRef<Stock[]>([])
const choices = shallowRef<Choices | null>(null)
const short = (mm: number) => shortText(mm, settings.unit)

onMounted(async () => {
  ;[choices.value, rack.value] = await Promise.all([api.choices(), api.stocks()])
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
      <button class="link add" @click="adding = true">Add a machine</button>
      <ArchivedList
        :rows="archived.map(({ id, document }) => ({ id, name: document.name }))"
        @restore="shelf.restore"
      />
    </template>
    <template #actions>
      <button v-if="record.canUndo.value" class="plain" @click="record.undo">Undo</button>
      <button v-if="record.canRedo.value" class="plain" @click="record.redo">Redo</button>
    </template>
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
          :change="shelf.change"
          :problem-at="record.problemAt"
        />
        <ArchiveButton what="machine" :uses="() => api.jobsOfMachine(machine!.id)" @archive="shelf.archive" />
        <ProblemNote
          v-if="record.problem.value && !record.problem.value.field"
          :problem="record.problem.value"
        />
      </template>
    </template>
  </WorkshopLayout>
  <NewMachine v-if="adding" :kinds="choices?.machine_kinds ?? []" :save="shelf.add" @close="adding = false" />
</template>

<style scoped>
.add {
  margin: 8px 12px;
}
.picture {
  height: 360px;
  margin-bottom: 16px;
  border: 1px solid var(--line);
}
</style>
