<script setup lang="ts">
import { computed, ref } from 'vue'

import ActButtons from '../components/ActButtons.vue'
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
/** Whether a part of this board has work on its back. */
const hasBack = computed(() =>
  job.design!.parts.some((part) => part.board === sheet.value?.board && part.steps.some(({ back }) => back)),
)
</script>

<template>
  <StopLayout
    :title="sheet ? `Sheet ${number} of ${job.design!.sheets.length}` : 'No sheets'"
    :about="board ? `${board.basis.stock.name} on ${board.basis.machine.name}` : 'nothing to lay out yet'"
  >
    <template #actions><SheetTabs v-model="number" :count="job.design!.sheets.length" /></template>
    <SheetDrawing v-if="sheet" :sheet="sheet" />
    <p v-else class="nothing second">Add parts at Shape. They are laid out as they come.</p>
    <template #ledger>
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
