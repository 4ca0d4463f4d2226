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
import { useJob } from '../stores/job'
import { useSettings } from '../stores/settings'
import { shortText } from '../units'

const job = useJob()
const settings = useSettings()
const part = computed(() => job.design!.parts.find(({ id }) => job.selected === `part:${id}`))

const sizes = computed(() => {
  const rows = new Map(job.design!.ledger['job']?.map((row) => [row.key, row.value]))
  // The recipe's lengths hold one thickness: with parts of several boards, what they call inside is not measured.
  if (!rows.has('width') || new Set(job.design!.parts.map(({ board }) => board)).size > 1) return ''
  const by = (side: 'inside' | 'outside') =>
    ['width', 'depth', 'height'].map((name) =>
      shortText(rows.get(`${side}_${name}`) ?? rows.get(name) ?? 0, settings.unit),
    )
  return `inside ${by('inside').join(' × ')} · outside ${by('outside').join(' × ')} ${settings.unit}`
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
  if (await job.edit({ verb: 'put', path: `parts/${id}`, value })) job.selected = `part:${id}`
}
</script>

<template>
  <StopLayout title="Parts, flat" :about="sizes">
    <template #actions><button class="plain small add" @click="addPart">Add a part</button></template>
    <FlatDrawing v-if="job.design!.parts.length" />
    <p v-else class="empty second">
      This job has no parts yet. Add one: it starts as a rectangle, and takes holes, openings, lettering and
      lines to score or fold, one step after the other.
    </p>
    <template #ledger>
      <template v-if="part">
        <PartHead :part="part" />
        <StepList :part="part" />
        <PartLedger />
      </template>
      <p v-else-if="job.design!.parts.length" class="hint small second">
        Select a part to see its steps, and to add to them.
      </p>
      <FindingList v-if="findings.length" :findings="findings" fresh />
      <LedgerPanel subject="job" :title="job.design!.name" about="sizes, as typed and as they follow">
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
  max-width: 460px;
  padding: 30px 22px;
}
.add {
  margin-left: auto;
}
</style>
