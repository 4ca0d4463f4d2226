<script setup lang="ts">
import { computed, nextTick, ref } from 'vue'

import type { Finding } from '../api/client'
import FindingList from '../components/FindingList.vue'
import ProofDrawing from '../components/ProofDrawing.vue'
import ProofLedger from '../components/ProofLedger.vue'
import ProblemNote from '../components/ProblemNote.vue'
import SheetTabs from '../components/SheetTabs.vue'
import StopLayout from '../components/StopLayout.vue'
import TaskNote from '../components/TaskNote.vue'
import { useJob } from '../stores/job'
import { useSettings } from '../stores/settings'
import { inUnit } from '../units'

const job = useJob()
const settings = useSettings()
const number = ref(1)
const drawing = ref<InstanceType<typeof ProofDrawing> | null>(null)
const sheet = computed(() => job.design!.sheets[Math.min(number.value, job.design!.sheets.length) - 1])
const fresh = computed(() => job.proof?.moves === job.design!.moves)

const about = computed(() => {
  if (!sheet.value) return 'there is nothing to cut yet'
  if (job.unproved) return 'not proved'
  if (!fresh.value) return job.proofTask ? 'being proved' : 'reading the file back'
  return inUnit(job.proof!.sentence, settings.unit)
})

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
      <button class="plain small corner" @click="drawing?.lookAtCorner()">look at a corner</button>
      <SheetTabs v-model="number" :count="job.design!.sheets.length" />
    </template>
    <div v-if="sheet" class="whole">
      <TaskNote v-if="job.proofTask" :task="job.proofTask" />
      <p v-if="job.unproved" class="unproved">
        <ProblemNote :problem="job.unproved" />
        <button type="button" class="plain small" @click="job.prove">prove it now</button>
      </p>
      <ProofDrawing ref="drawing" :sheet="sheet" />
    </div>
    <p v-else class="nothing second">
      Add parts at Shape; they are proved from the file as soon as they can be cut.
    </p>
    <template #ledger>
      <p v-if="job.proof && sheet && !fresh" class="before small second">
        These figures are of the state before the last change.
      </p>
      <FindingList v-if="job.proof && sheet" :findings="job.proof.findings" :fresh="fresh" @show="show" />
      <ProofLedger v-if="job.proof && sheet" :class="{ stale: !fresh }" :proof="job.proof" />
      <p v-if="job.proof && sheet" class="small second unseen">
        Not looked at: {{ job.proof.not_looked_at.join('; ') }}.
      </p>
    </template>
  </StopLayout>
</template>

<style scoped>
.before {
  padding: 10px 18px 0;
}
.stale {
  opacity: 0.45;
}
.whole {
  display: grid;
  grid-template-rows: auto minmax(0, 1fr);
  min-height: 0;
}
.whole > :last-child {
  grid-row: 2;
}
.unproved {
  display: flex;
  align-items: center;
  gap: 12px;
  padding: 4px 22px;
}
.legend {
  display: flex;
  gap: 12px;
  margin-left: auto;
  white-space: nowrap;
  color: var(--second);
}
i {
  display: inline-block;
  width: 20px;
  margin-right: 5px;
  vertical-align: middle;
}
.corner {
  flex: none;
}
.nothing {
  padding: 20px 22px;
}
.unseen {
  padding: 12px 18px;
}
.path {
  border-top: 2px solid #d55e00;
}
.beam {
  height: 9px;
  background: var(--beam);
}
.edge {
  border-top: 2px solid var(--deep);
}
.nominal {
  border-top: 1.5px dotted var(--ink);
}
</style>
