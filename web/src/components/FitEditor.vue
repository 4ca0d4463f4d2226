<script setup lang="ts">
import { computed } from 'vue'

import { useSay } from '../composables/useSay'
import type { Option } from '../kit/options'
import PickField from '../kit/PickField.vue'
import { useJob } from '../stores/job'
import LengthField from './LengthField.vue'

/** How loose the maker wants it: a word, or the clearance itself; and what comes of it over all that is not sure. */
const job = useJob()
const say = useSay()
const basis = computed(() => job.basis!)
const fits = computed<Option[]>(() =>
  basis.value.fits.map(({ name, clearance }) => ({
    value: name,
    label: name,
    detail: say.signed(clearance, 2),
  })),
)
const choose = (name: string) =>
  job.putBasis('clearance', `${basis.value.fits.find((fit) => fit.name === name)!.clearance} mm`)
const length = (mm: number) => say.length(mm, 3)
</script>

<template>
  <PickField
    class="fits"
    label="Fit"
    hide-label
    :options="fits"
    :model-value="basis.fit"
    @update:model-value="choose"
  />
  <LengthField
    :field="job.basisPath('clearance')"
    label="Clearance"
    :text="say.short(basis.clearance)"
    @commit="job.putBasis('clearance', $event)"
  />
  <p class="small second note">The whole gap of one finger in its socket: half on either side.</p>
  <dl class="small">
    <template
      v-for="[what, fit] in [
        ['A finger', basis.finger_fit],
        ['The board in a slot', basis.slot_fit],
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
    >Find the fits for this board</RouterLink
  >
  <p
    v-for="warning in [...basis.finger_fit.warnings, ...basis.slot_fit.warnings]"
    :key="warning"
    class="small ochre"
  >
    {{ say.sentence(warning) }}
  </p>
</template>

<style scoped>
.fits :deep(.el-segmented),
.fits :deep(.el-segmented__group) {
  width: 100%;
}
.fits :deep(.el-segmented__group) {
  display: grid;
  grid-template-columns: repeat(4, minmax(0, 1fr));
}
.fits :deep(.el-segmented__group .el-segmented__item) {
  min-width: 0;
  padding: 0;
}
.fits :deep(.figure) {
  font-size: 0.8rem;
}
.note {
  margin: 4px 0 8px;
}
dl {
  margin-bottom: 6px;
}
dt {
  color: var(--second);
}
dd {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 0 8px;
  margin-bottom: 4px;
}
dd b {
  font-weight: 500;
}
dd .ochre {
  grid-column: 1 / -1;
}
</style>
