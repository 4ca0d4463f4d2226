<script setup lang="ts">
import { computed } from 'vue'

import type { Trial } from '../api/client'
import { useSay } from '../composables/useSay'
import { figureOf, isChanged, rowsOf, type Row } from '../tries'
import ProblemNote from './ProblemNote.vue'
import TryRow from './TryRow.vue'

/** Trials side by side, a column each, the first one as it is now. */
const props = defineProps<{ trials: readonly Trial[] }>()
const emit = defineEmits<{ use: [index: number]; save: [index: number]; remove: [index: number] }>()
const say = useSay()
const rows = computed(() => rowsOf(props.trials))

/** A row of one trial's own figure, "–" where it cannot be made. */
const made = (trial: Trial, figure: () => string) => (trial.problem ? '–' : figure())

function after(row: Row, trial: Trial): string {
  const mm = figureOf(row, trial, props.trials)
  return mm === null ? '–' : say.length(mm)
}
</script>

<template>
  <div class="wide">
    <table>
      <colgroup>
        <col style="width: 9rem" />
      </colgroup>
      <thead>
        <tr>
          <td />
          <th v-for="(trial, i) in trials" :key="i" scope="col">
            {{ trial.stock }}
            <span class="small second">{{ i ? trial.machine : `${trial.machine}, as it is now` }}</span>
          </th>
        </tr>
      </thead>
      <tbody class="figure">
        <TryRow v-slot="{ trial }" title="Thickness" :trials="trials">{{
          say.length(trial.thickness)
        }}</TryRow>
        <TryRow v-slot="{ trial }" title="Kerf" :trials="trials">
          <span :class="{ ochre: trial.doubts.length }" :title="say.sentence(trial.doubts.join(' '))"
            >{{ say.length(trial.kerf) }}{{ trial.doubts.length ? ' ?' : '' }}</span
          >
        </TryRow>
        <TryRow v-slot="{ trial }" title="Slot for it" :trials="trials">{{ say.length(trial.slot) }}</TryRow>
        <TryRow v-for="row in rows.job" v-slot="{ trial }" :key="row.key" :title="row.title" :trials="trials">
          <span :class="{ changed: isChanged(row, trial) }">{{ after(row, trial) }}</span>
        </TryRow>
        <TryRow v-slot="{ trial }" title="Joints" :trials="trials" words>
          <template v-if="trial.problem">–</template>
          <template v-else>
            {{ trial.verdict }}
            <span v-if="trial.failing.length" class="bad small"
              >{{ trial.failing.length }} of {{ trial.joints }} fail: {{ trial.failing.join(', ') }}</span
            >
            <span v-if="trial.wants" class="small ochre">{{ say.sentence(trial.wants) }}</span>
            <span v-for="warning in trial.warnings" :key="warning" class="small ochre">{{
              say.sentence(warning)
            }}</span>
          </template>
        </TryRow>
        <TryRow v-slot="{ trial }" title="Sheets" :trials="trials">{{
          made(trial, () => `${trial.sheets}, ${say.number(trial.used * 100, 0)} % used`)
        }}</TryRow>
        <TryRow v-slot="{ trial }" title="Time" :trials="trials">{{
          made(trial, () => say.time(trial.seconds))
        }}</TryRow>
        <TryRow v-slot="{ trial }" title="Price of the sheets" :trials="trials">{{
          made(trial, () => (trial.price === null ? 'not known' : say.number(trial.price, 2)))
        }}</TryRow>
        <TryRow
          v-if="trials.some(({ problem }) => problem)"
          v-slot="{ trial }"
          title="Cannot be made"
          :trials="trials"
          words
        >
          <ProblemNote v-if="trial.problem" :problem="trial.problem" />
        </TryRow>
        <TryRow v-slot="{ trial, index }" title="" :trials="trials" words>
          <div v-if="index" class="acts">
            <template v-if="!trial.problem">
              <ElButton size="small" @click="emit('use', index - 1)">Use this</ElButton>
              <ElButton size="small" @click="emit('save', index - 1)">Save as variant</ElButton>
            </template>
            <ElButton link size="small" @click="emit('remove', index - 1)">Remove</ElButton>
          </div>
        </TryRow>
      </tbody>
    </table>
    <details v-if="rows.parts.length" class="small">
      <summary>{{ rows.parts.length }} sizes of parts change</summary>
      <table>
        <colgroup>
          <col style="width: 9rem" />
        </colgroup>
        <tbody class="figure">
          <TryRow
            v-for="row in rows.parts"
            v-slot="{ trial }"
            :key="row.key"
            :title="row.title"
            :trials="trials"
          >
            <span :class="{ changed: isChanged(row, trial) }">{{ after(row, trial) }}</span>
          </TryRow>
        </tbody>
      </table>
    </details>
  </div>
</template>

<style scoped>
.wide {
  overflow-x: auto;
}
table {
  width: 100%;
  min-width: 26rem;
  table-layout: fixed;
  border-collapse: collapse;
}
thead th,
thead td {
  padding: 3px 8px;
  text-align: right;
  font-weight: 600;
}
thead th span {
  display: block;
  font-weight: 400;
}
.changed {
  box-shadow: inset 0 -2px var(--ochre);
}
.acts {
  justify-content: flex-end;
}
</style>
