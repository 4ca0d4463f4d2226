<script setup lang="ts">
import ChoiceField from '../kit/ChoiceField.vue'
import { useJob } from '../stores/job'

/** How inside corners that take a square mate are cleared for a round tool. */
const job = useJob()
const OPTIONS = [
  { value: 'auto', label: 'As the machine needs', detail: 'dogbones for a router, none for a laser' },
  { value: 'dogbone', label: 'Dogbones' },
  { value: 't-bone', label: 'T-bones, into the fingers' },
  { value: 'none', label: 'None' },
]
</script>

<template>
  <ChoiceField
    class="relief"
    label="Inside-corner relief"
    field="relief"
    :options="OPTIONS"
    :model-value="job.design!.relief"
    :problem="job.problemAt('relief')"
    @update:model-value="job.put('relief', $event)"
  />
</template>

<style scoped>
.relief {
  padding: 12px 18px 4px;
}
</style>
