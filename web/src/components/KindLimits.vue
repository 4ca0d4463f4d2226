<script setup lang="ts">
import { computed } from 'vue'

import { api, type KindLimitsIn } from '../api/client'
import { useRecord } from '../composables/useRecord'
import { useSay } from '../composables/useSay'
import MachineRules from './MachineRules.vue'
import TextField from '../kit/TextField.vue'
import { LIMITS, shownLimit, typedLimits, type Limit } from '../limits'
import { useChoices } from '../stores/choices'
import { useSettings } from '../stores/settings'

/** What is usual for all boards of one kind in this workshop, where it is not common practice. */
const props = defineProps<{ kind: string }>()
const choices = useChoices()
const say = useSay()
const settings = useSettings()
const kinds = computed(() => choices.choices?.stock_kinds ?? [])
const of = (kind: string) => choices.choices?.limits[kind]

const record = useRecord<KindLimitsIn>(
  (id) => typedLimits(of(kinds.value[id]!)!.own),
  async (id, changes) => {
    await api.changeKindLimits(kinds.value[id]!, { ...changes, unit: settings.unit })
    await choices.reload()
  },
)
const shown = (of: 'own' | 'common', name: Limit) =>
  shownLimit(say, name, choices.choices?.limits[props.kind]?.[of][name])
const put = (name: Limit, text: string) =>
  record.edit(kinds.value.indexOf(props.kind), { [name]: text.trim() || null })
</script>

<template>
  <details class="wide">
    <summary class="small">Grey values are usual for {{ kind }} here: change what is usual</summary>
    <div class="fields">
      <TextField
        v-for="[name, label] in LIMITS"
        :key="name"
        :field="`kind.${name}`"
        :label="label"
        :text="shown('own', name)"
        :placeholder="shown('common', name)"
        :unit="name === 'density' ? '' : say.unit"
        :problem="record.problemAt(`limits.${name}`)"
        @commit="put(name, $event)"
      />
      <MachineRules
        v-if="of(kind)"
        :key="kind"
        class="wide"
        :own="of(kind)!.own"
        :usual="of(kind)!.common"
        :problem-at="record.problemAt"
        @change="record.edit(kinds.indexOf(kind), $event)"
      />
    </div>
    <p class="small second">
      Grey values are common practice. Boards of this kind without limits of their own follow; jobs are told,
      and keep theirs until they take the new ones.
    </p>
    <ElButton v-if="record.canUndo.value" size="small" @click="record.undo">Undo</ElButton>
    <ElButton v-if="record.canRedo.value" size="small" @click="record.redo">Redo</ElButton>
  </details>
</template>

<style scoped>
.fields {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 10px 14px;
  padding: 8px 0 4px;
}
.fields .wide {
  grid-column: 1 / -1;
}
</style>
