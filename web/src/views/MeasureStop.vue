<script setup lang="ts">
import { computed } from 'vue'

import BoardTabs from '../components/BoardTabs.vue'
import FitEditor from '../components/FitEditor.vue'
import LedgerPanel from '../components/LedgerPanel.vue'
import MachineEditor from '../components/MachineEditor.vue'
import StockEditor from '../components/StockEditor.vue'
import StopLayout from '../components/StopLayout.vue'
import ThicknessStrip from '../components/ThicknessStrip.vue'
import TriesPanel from '../components/TriesPanel.vue'
import { useJob } from '../stores/job'

const job = useJob()

const readings = computed(() => {
  const { stock, thickness: mean, thin, thick, outliers } = job.basis!
  return { values: stock.readings, mean, thin, thick, outliers }
})

/** Where this job comes from, and what comes from it on other boards. */
const kin = computed(() => [
  ...(job.design!.variant_of ? [{ ...job.design!.variant_of, what: 'A variant of' }] : []),
  ...job.design!.variants.map((one) => ({ ...one, what: 'Its variant:' })),
])
</script>

<template>
  <StopLayout title="Measure" about="the board, the machine, and how tight it should be">
    <div class="three">
      <BoardTabs />
      <section :key="job.board!.id" class="card">
        <h2>The board</h2>
        <ThicknessStrip :readings="readings" :nominal="job.basis!.stock.nominal" :width="206" />
        <StockEditor />
      </section>
      <section class="card">
        <h2>The machine</h2>
        <MachineEditor />
      </section>
      <section class="card">
        <h2>The fit</h2>
        <FitEditor />
        <p v-if="kin.length" class="small kin">
          <template v-for="one in kin" :key="one.id">
            {{ one.what }}
            <RouterLink :to="{ name: 'measure', params: { id: one.id } }">{{ one.name }}</RouterLink>
          </template>
        </p>
      </section>
      <TriesPanel />
    </div>
    <template #ledger
      ><LedgerPanel
        :subject="`basis:${job.board!.id}`"
        title="Basis"
        about="everything else is computed from these"
    /></template>
  </StopLayout>
</template>

<style scoped>
.three {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(14rem, 1fr));
  align-items: start;
  gap: 14px;
  padding: 4px 22px 22px;
  overflow-y: auto;
}
.kin {
  margin-top: 10px;
  padding-top: 8px;
  border-top: 1px solid var(--line);
}
.card h2 {
  margin-bottom: 8px;
}
</style>
