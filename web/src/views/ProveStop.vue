<script setup lang="ts">
import { computed, nextTick, ref } from 'vue'

import type { Finding } from '../api/client'
import FindingList from '../components/FindingList.vue'
import ProofDrawing from '../components/ProofDrawing.vue'
import ProofLedger from '../components/ProofLedger.vue'
import ProofMark from '../components/ProofMark.vue'
import SheetTabs from '../components/SheetTabs.vue'
import StopLayout from '../components/StopLayout.vue'
import { useJob } from '../stores/job'

const job = useJob()
const number = ref(1)
const drawing = ref<InstanceType<typeof ProofDrawing> | null>(null)
const sheets = computed(() => job.design!.sheets)
const sheet = computed(() => sheets.value[Math.min(number.value, sheets.value.length) - 1])
const about = computed(() =>
  sheet.value ? `what the beam leaves, sheet ${sheet.value.number} of ${sheets.value.length}` : '',
)

/** Its place, on the sheet that it is on. */
async function show({ sheet: on, place, amount }: Finding): Promise<void> {
  if (on) number.value = on
  await nextTick()
  if (place) drawing.value?.lookAt(place, amount)
}
</script>

<template>
  <StopLayout title="As cut" :about="about">
    <template #actions>
      <ul class="legend small">
        <li><i class="path" />path</li>
        <li><i class="beam" />beam</li>
        <li><i class="edge" />finished edge</li>
        <li><i class="nominal" />nominal</li>
      </ul>
      <ElButton v-if="sheet" size="small" @click="drawing?.lookAtCorner()">Show a corner</ElButton>
      <SheetTabs v-model="number" :count="sheets.length" />
    </template>
    <ProofDrawing v-if="sheet" ref="drawing" :sheet="sheet" />
    <p v-else class="nothing second">
      Add parts at Shape. They are proved from the file as soon as they can be cut.
    </p>
    <template #ledger>
      <ProofMark />
      <template v-if="job.proof && sheet">
        <!-- Figures of an older state stand back, and are said to be old just above. -->
        <div :class="{ stale: !job.fresh }" :aria-hidden="job.fresh ? undefined : 'true'">
          <FindingList :findings="job.proof.findings" @show="show" />
          <ProofLedger :proof="job.proof" />
          <p class="small second not-looked">Not looked at: {{ job.proof.not_looked_at.join('; ') }}.</p>
        </div>
      </template>
    </template>
  </StopLayout>
</template>

<style scoped>
.stale {
  filter: grayscale(1);
  opacity: 0.55;
}
.legend {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 12px;
  color: var(--second);
}
i {
  display: inline-block;
  width: 20px;
  margin-right: 5px;
  vertical-align: middle;
}
.nothing {
  padding: 20px 22px;
}
.not-looked {
  padding: 12px 18px;
}
.path {
  border-top: 2px solid var(--path);
}
.beam {
  height: 9px;
  background: var(--beam);
}
.edge {
  border-top: 2px solid var(--deep);
}
.nominal {
  border-top: 2px dotted var(--ink);
}
</style>
