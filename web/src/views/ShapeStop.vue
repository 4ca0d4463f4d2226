<script setup lang="ts">
import { computed } from 'vue'

import FlatDrawing from '../components/FlatDrawing.vue'
import LedgerPanel from '../components/LedgerPanel.vue'
import MarksPanel from '../components/MarksPanel.vue'
import PartLedger from '../components/PartLedger.vue'
import RecipeSettings from '../components/RecipeSettings.vue'
import StopLayout from '../components/StopLayout.vue'
import { useJob } from '../stores/job'
import { useSettings } from '../stores/settings'
import { shortText } from '../units'

const job = useJob()
const settings = useSettings()

const sizes = computed(() => {
  const rows = new Map(job.design!.ledger['job']!.map((row) => [row.key, row.value]))
  const by = (side: 'inside' | 'outside') =>
    ['width', 'depth', 'height'].map((name) =>
      shortText(rows.get(`${side}_${name}`) ?? rows.get(name) ?? 0, settings.unit),
    )
  return `inside ${by('inside').join(' × ')} · outside ${by('outside').join(' × ')} ${settings.unit}`
})
</script>

<template>
  <StopLayout title="Parts, flat" :about="sizes">
    <FlatDrawing />
    <template #ledger>
      <LedgerPanel subject="job" :title="job.design!.name" about="sizes, as typed and as they follow">
        <RecipeSettings />
      </LedgerPanel>
      <PartLedger />
      <MarksPanel v-if="job.selected.startsWith('part:')" />
      <p v-else class="hint small second">
        Select a part to draw on it: holes, lettering, score lines, pockets.
      </p>
    </template>
  </StopLayout>
</template>

<style scoped>
.hint {
  padding: 14px 18px;
}
</style>
