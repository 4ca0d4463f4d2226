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
const sheet = computed(() => job.design!.sheets[number.value - 1]!)
</script>

<template>
  <StopLayout
    :title="`Sheet ${number} of ${job.design!.sheets.length}`"
    :about="`${job.design!.basis.stock.name} on ${job.design!.basis.machine.name}`"
  >
    <template #actions><SheetTabs v-model="number" :count="job.design!.sheets.length" /></template>
    <SheetDrawing :sheet="sheet" />
    <template #ledger>
      <LedgerPanel :subject="`sheet:${number}`" :title="`Sheet ${number}`">
        <label class="turns">
          <span>quarter turns allowed</span>
          <input
            type="checkbox"
            :checked="job.design!.quarter_turns"
            @change="job.edit({ quarter_turns: ($event.target as HTMLInputElement).checked })"
          />
        </label>
      </LedgerPanel>
      <PartLedger />
    </template>
  </StopLayout>
</template>

<style scoped>
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
