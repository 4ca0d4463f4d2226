<script setup lang="ts">
import { computed, ref } from 'vue'

import LedgerPanel from '../components/LedgerPanel.vue'
import PartLedger from '../components/PartLedger.vue'
import SheetDrawing from '../components/SheetDrawing.vue'
import SheetTabs from '../components/SheetTabs.vue'
import StopLayout from '../components/StopLayout.vue'
import { useJob } from '../stores/job'

const job = useJob()
const wanted = ref(1)
const number = computed({
  get: () => Math.min(wanted.value, job.design!.sheets.length),
  set: (value) => (wanted.value = value),
})
const sheet = computed(() => job.design!.sheets[number.value - 1])
const board = computed(() => job.design!.boards.find(({ id }) => id === sheet.value?.board))
</script>

<template>
  <StopLayout
    :title="sheet ? `Sheet ${number} of ${job.design!.sheets.length}` : 'No sheets'"
    :about="
      board ? `${board.basis.stock.name} on ${board.basis.machine.name}` : 'there is nothing to lay out yet'
    "
  >
    <template #actions><SheetTabs v-model="number" :count="job.design!.sheets.length" /></template>
    <SheetDrawing v-if="sheet" :sheet="sheet" />
    <p v-else class="nothing second">Add parts at Shape; they are laid out as they come.</p>
    <template #ledger>
      <LedgerPanel v-if="sheet" :subject="`sheet:${number}`" :title="`Sheet ${number}`">
        <label class="turns">
          <span>quarter turns allowed</span>
          <input
            type="checkbox"
            :checked="board?.quarter_turns"
            @change="
              job.put(`layout/${sheet!.board}/quarter_turns`, ($event.target as HTMLInputElement).checked)
            "
          />
        </label>
      </LedgerPanel>
      <PartLedger />
    </template>
  </StopLayout>
</template>

<style scoped>
.nothing {
  padding: 20px 22px;
}
.turns {
  display: flex;
  justify-content: space-between;
  padding: 7px 18px 7px 29px;
  border-top: 1px solid var(--line);
}
input {
  accent-color: var(--deep);
}
</style>
