<script setup lang="ts">
import { onMounted } from 'vue'

import { api, type Machine, type MachineChange, type MachineIn } from '../api/client'
import ArchiveButton from '../components/ArchiveButton.vue'
import ArchivedList from '../components/ArchivedList.vue'
import BedDrawing from '../components/BedDrawing.vue'
import MachineLedger from '../components/MachineLedger.vue'
import NewMachine from '../components/NewMachine.vue'
import ProblemNote from '../components/ProblemNote.vue'
import SettingsLog from '../components/SettingsLog.vue'
import WorkshopLayout from '../components/WorkshopLayout.vue'
import { useChoices } from '../stores/choices'
import { useWorkshop } from '../stores/workshop'
import { useShelf } from '../composables/useShelf'
import { useSay } from '../composables/useSay'

/** The machines: bed and axes, kerf and tools, keep-out areas, and the settings log. */
const say = useSay()
const shelf = useShelf<Machine, MachineIn, MachineChange>('machines', {
  list: api.machines,
  add: api.addMachine,
  change: api.changeMachine,
  remove: api.removeMachine,
  restore: api.restoreMachine,
  archived: api.archivedMachines,
})
const { all: machines, one: machine, archived, adding, record } = shelf
const choices = useChoices()
const workshop = useWorkshop()
const short = (mm: number) => say.short(mm)

onMounted(choices.load)
onMounted(workshop.loadBoards)
const restoring = (id: number) => () => shelf.restore(id)
</script>

<template>
  <WorkshopLayout title="Machines" :about="machine?.document.name ?? ''" :loading="shelf.loading.value">
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
          {{ say.unit }}
        </span>
      </RouterLink>
      <ElButton v-if="machines" class="add" size="small" @click="adding = true">Add a machine</ElButton>
      <ArchivedList
        class="add"
        what="machines"
        :rows="archived.map(({ id, document }) => ({ id, name: document.name }))"
        @restore="shelf.restore"
      />
    </template>
    <template #actions>
      <ElButton size="small" v-if="record.canUndo.value" @click="record.undo">Undo</ElButton>
      <ElButton size="small" v-if="record.canRedo.value" @click="record.redo">Redo</ElButton>
    </template>
    <p v-if="machines?.length === 0" class="second">
      No machines yet. Add one: its bed and its kerf are enough to begin.
    </p>
    <template v-if="machine">
      <BedDrawing class="picture" :machine="machine.document" />
      <SettingsLog :machine="machine" />
    </template>

    <template #ledger>
      <template v-if="machine">
        <MachineLedger
          v-if="choices.choices"
          :machine="machine"
          :choices="choices.choices"
          :change="shelf.change"
          :problem-at="record.problemAt"
        />
        <ArchiveButton
          what="machine"
          :name="machine.document.name"
          :uses="() => api.jobsOfMachine(machine!.id)"
          :archive="shelf.archive"
          :restore="restoring(machine.id)"
        />
        <ProblemNote
          v-if="record.problem.value && !record.problem.value.field"
          :problem="record.problem.value"
        />
      </template>
    </template>
  </WorkshopLayout>
  <NewMachine v-if="adding" :save="shelf.add" @close="adding = false" />
</template>

<style scoped>
.picture {
  height: 24rem;
  margin-bottom: 16px;
  border: 1px solid var(--line);
}
</style>
