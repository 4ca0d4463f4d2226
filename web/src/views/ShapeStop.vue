<script setup lang="ts">
import { computed } from 'vue'

import FindingList from '../components/FindingList.vue'
import FlatDrawing from '../components/FlatDrawing.vue'
import JobFields from '../components/JobFields.vue'
import LedgerPanel from '../components/LedgerPanel.vue'
import PartHead from '../components/PartHead.vue'
import PartLedger from '../components/PartLedger.vue'
import RecipeSettings from '../components/RecipeSettings.vue'
import StepList from '../components/StepList.vue'
import StopLayout from '../components/StopLayout.vue'
import { freeName, newPart } from '../steps'
import { useSay } from '../composables/useSay'
import { useJob } from '../stores/job'

const job = useJob()
const say = useSay()
const part = computed(() => job.part)

const sizes = computed(() => {
  const rows = new Map(job.design!.ledger['job']?.map((row) => [row.key, row.value]))
  // The recipe's lengths hold one thickness: with parts of several boards, what they call inside is not measured.
  if (!rows.has('width') || new Set(job.design!.parts.map(({ board }) => board)).size > 1) return ''
  const by = (side: 'inside' | 'outside') =>
    ['width', 'depth', 'height'].map((name) => say.short(rows.get(`${side}_${name}`) ?? rows.get(name) ?? 0))
  return `inside ${by('inside').join(' × ')} · outside ${by('outside').join(' × ')} ${say.unit}`
})

/** What is to be mended here: steps that failed, and names of what is not there. */
const findings = computed(() =>
  job.design!.findings.filter(({ severity, field }) => severity === 'stop' && field),
)

async function addPart(): Promise<void> {
  const ids = job.design!.parts.map(({ id }) => id)
  const id = freeName('part', ids)
  const board = job.board?.id ?? 'main'
  const value = newPart(`Part ${ids.length + 1}`, board)
  if (await job.edit({ verb: 'put', path: `parts/${id}`, value })) job.pick('part', id)
}
</script>

<template>
  <StopLayout title="Parts, flat" :about="sizes">
    <template #actions><ElButton size="small" @click="addPart">Add a part</ElButton></template>
    <FlatDrawing v-if="job.design!.parts.length" />
    <p v-else class="empty second">
      This job has no parts yet. Add one: it starts as a rectangle, and takes holes, openings, lettering, and
      lines to score or fold, one step after the other.
    </p>
    <template #ledger>
      <template v-if="part">
        <PartHead v-slot="{ edge }" :part="part">
          <p v-if="edge" class="edge">
            Edge {{ edge.name.replace('.', ', ').replaceAll('-', ' ') }}:
            <span class="figure">{{ say.length(edge.length) }} {{ say.unit }}</span>
          </p>
        </PartHead>
        <StepList :part="part" />
        <PartLedger />
      </template>
      <p v-else-if="job.design!.parts.length" class="hint small second">
        Select a part to see its steps, and to add to them.
      </p>
      <FindingList v-if="findings.length" :findings="findings" />
      <LedgerPanel subject="job" :title="job.design!.name" about="sizes, typed and computed">
        <RecipeSettings />
      </LedgerPanel>
      <JobFields />
    </template>
  </StopLayout>
</template>

<style scoped>
.hint {
  padding: 14px 18px 0;
}
.empty {
  max-width: 34rem;
  padding: 30px 22px;
}
.edge {
  padding: 4px 8px;
  background: var(--deep-wash);
}
</style>
