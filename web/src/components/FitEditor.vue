<script setup lang="ts">
import { onMounted, shallowRef } from 'vue'

import { api, type Choices } from '../api/client'
import { useJob } from '../stores/job'
import { useSettings } from '../stores/settings'
import { lengthText, shortText } from '../units'
import LengthField from './LengthField.vue'

/** How loose the maker wants it: a word, or the clearance itself. */
const job = useJob()
const settings = useSettings()
const fits = shallowRef<Choices['fits']>([])

onMounted(async () => (fits.value = (await api.choices()).fits))
</script>

<template>
  <div class="fits" role="group" aria-label="Fit">
    <button
      v-for="fit in fits"
      :key="fit.name"
      class="plain"
      :aria-pressed="job.design!.basis.fit === fit.name"
      @click="job.edit({ clearance: `${fit.clearance} mm` })"
    >
      <b>{{ fit.name }}</b>
      <span class="figure small"
        >{{ fit.clearance > 0 ? '+' : '' }}{{ lengthText(fit.clearance, settings.unit) }}</span
      >
    </button>
  </div>
  <LengthField
    field="clearance"
    :label="`Clearance, in ${settings.unit}`"
    :text="shortText(job.design!.basis.clearance, settings.unit)"
    @commit="job.edit({ clearance: $event })"
  />
  <p class="small second note">The whole gap of one finger in its socket, half of it on either side.</p>
</template>

<style scoped>
.fits {
  display: grid;
  grid-template-columns: repeat(4, 1fr);
  gap: 4px;
  margin-bottom: 10px;
}
button {
  display: grid;
  text-align: center;
  padding: 4px 2px;
}
b {
  font-weight: 500;
}
[aria-pressed='true'] {
  border-color: var(--deep);
  background: var(--deep-wash);
}
.note {
  margin-top: 4px;
}
</style>
