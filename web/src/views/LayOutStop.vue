<script setup lang="ts">
import { computed, ref } from 'vue'

import ActButtons from '../components/ActButtons.vue'
import FindingSteps from '../components/FindingSteps.vue'
import LedgerPanel from '../components/LedgerPanel.vue'
import PartLedger from '../components/PartLedger.vue'
import SheetDrawing from '../components/SheetDrawing.vue'
import SheetTabs from '../components/SheetTabs.vue'
import StopLayout from '../components/StopLayout.vue'
import { useActs } from '../composables/useActs'
import FlagField from '../kit/FlagField.vue'
import PickField from '../kit/PickField.vue'
import { useJob } from '../stores/job'

const job = useJob()
const acts = useActs()
const wanted = ref(1)
const number = computed({
  get: () => Math.min(wanted.value, job.design!.sheets.length),
  set: (value) => (wanted.value = value),
})
const sheet = computed(() => job.design!.sheets[number.value - 1])
const board = computed(() => job.design!.boards.find(({ id }) => id === sheet.value?.board))
/** Whether a part on this sheet has work on its back. */
const hasBack = computed(() => {
  const here = new Set(job.design!.placed.filter((one) => one.sheet === number.value).map(({ part }) => part))
  return job.design!.parts.some((part) => here.has(part.id) && part.steps.some(({ back }) => back))
})
/** What lies on no sheet, too near to something, or over the edge. */
const found = computed(() =>
  job.design!.findings.filter(({ code, field }) => NO_PLACE.includes(code) || field.startsWith('layout/')),
)
const NO_PLACE = ['part-too-large', 'sheets-run-out']
const wantedFinding = ref(0)
const finding = computed({
  get: () => Math.min(wantedFinding.value, Math.max(found.value.length - 1, 0)),
  set: (value) => (wantedFinding.value = value),
})
</script>

<template>
  <StopLayout
    :title="sheet ? `Sheet ${number} of ${job.design!.sheets.length}` : 'No sheets'"
    :about="
      board
        ? `${board.basis.stock.name} on ${board.basis.machine.name}`
        : found.length
          ? 'no part has a place'
          : 'nothing to lay out yet'
    "
  >
    <template #actions><SheetTabs v-model="number" :count="job.design!.sheets.length" /></template>
    <SheetDrawing v-if="sheet" :sheet="sheet" />
    <p v-else-if="found.length" class="nothing second">No part has a place on a sheet.</p>
    <p v-else class="nothing second">Add parts at Shape. They are laid out as they come.</p>
    <template #ledger>
      <FindingSteps v-if="found.length" v-model="finding" :findings="found" />
      <template v-if="job.part">
        <PartLedger />
        <ActButtons class="todo" :acts="acts.ofSelected()" />
      </template>
      <LedgerPanel v-if="sheet" :subject="`sheet:${number}`" :title="`Sheet ${number}`">
        <FlagField
          class="turns"
          label="Quarter turns allowed"
          :model-value="board?.quarter_turns ?? false"
          @update:model-value="job.put(`layout/${sheet!.board}/quarter_turns`, $event)"
        />
        <PickField
          v-if="hasBack"
          class="turns"
          label="For its back the sheet is turned over about"
          :options="[
            { value: 'left', label: 'its left edge' },
            { value: 'bottom', label: 'its bottom edge' },
          ]"
          :model-value="board?.turned_about ?? 'left'"
          help="The back has a file of its own; its name says the edge."
          @update:model-value="job.put(`layout/${sheet!.board}/turned_about`, $event)"
        />
      </LedgerPanel>
    </template>
  </StopLayout>
</template>

<style scoped>
.nothing {
  padding: 20px 22px;
}
.turns {
  padding: 5px 18px 5px 29px;
  border-top: 1px solid var(--line);
}
.todo {
  padding: 6px 18px 0 29px;
}
</style>
