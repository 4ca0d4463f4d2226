<script setup lang="ts">
import { computed } from 'vue'

import { useJob } from '../stores/job'
import { useSettings } from '../stores/settings'
import { inUnit, lengthText, shortText, signedText } from '../units'
import LengthField from './LengthField.vue'

/** How loose the maker wants it: a word, or the clearance itself; and what comes of it over all that is not sure. */
const job = useJob()
const settings = useSettings()
const basis = computed(() => job.basis!)
const length = (mm: number) => lengthText(mm, settings.unit, 3)
</script>

<template>
  <div class="fits" role="group" aria-label="Fit">
    <button
      v-for="fit in basis.fits"
      :key="fit.name"
      class="plain"
      :aria-pressed="basis.fit === fit.name"
      @click="job.putBasis('clearance', `${fit.clearance} mm`)"
    >
      <b>{{ fit.name }}</b>
      <span class="figure small">{{ signedText(fit.clearance, settings.unit, 2) }}</span>
    </button>
  </div>
  <LengthField
    :field="job.basisPath('clearance')"
    :label="`Clearance, in ${settings.unit}`"
    :text="shortText(basis.clearance, settings.unit)"
    @commit="job.putBasis('clearance', $event)"
  />
  <p class="small second note">The whole gap of one finger in its socket, half of it on either side.</p>
  <dl class="small">
    <template
      v-for="[what, fit] in [
        ['a finger', basis.finger_fit],
        ['the board in a slot', basis.slot_fit],
      ] as const"
      :key="what"
    >
      <dt>{{ what }}</dt>
      <dd>
        <b>{{ fit.verdict }}</b>
        <span class="figure second"> {{ length(fit.low) }} … {{ length(fit.high) }}</span>
        <span v-if="fit.wants" class="ochre">{{ fit.wants }}</span>
      </dd>
    </template>
  </dl>
  <RouterLink
    v-if="basis.machine.id && basis.stock.id"
    class="small find"
    :to="{ name: 'notebook', query: { machine: basis.machine.id, stock: basis.stock.id, way: 'comb' } }"
    >find the fits for this board</RouterLink
  >
  <p
    v-for="warning in [...basis.finger_fit.warnings, ...basis.slot_fit.warnings]"
    :key="warning"
    class="small ochre"
  >
    {{ inUnit(warning, settings.unit) }}
  </p>
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
dl {
  margin: 10px 0 0;
}
dt {
  color: var(--second);
}
dd {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 0 8px;
  margin: 0 0 4px;
}
.find {
  color: var(--deep);
}
dd .ochre {
  grid-column: 1 / -1;
}
</style>
