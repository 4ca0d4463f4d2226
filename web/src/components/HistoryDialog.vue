<script setup lang="ts">
import { onMounted, ref, shallowRef } from 'vue'

import { api, type Revision } from '../api/client'
import { useProblem } from '../composables/useProblem'
import { useJob } from '../stores/job'
import { useSettings } from '../stores/settings'
import { inUnit } from '../units'
import ProblemNote from './ProblemNote.vue'

/** Every revision in words, the newest first, with the way back to any of them. */
const emit = defineEmits<{ close: [] }>()
const job = useJob()
const settings = useSettings()
const open = ref(true)
const rows = shallowRef<Revision[] | null>(null)
const { problem, tell } = useProblem()

const load = () =>
  tell(async () => {
    rows.value = await api.history(job.design!.id)
  })
onMounted(load)

async function goTo({ number }: Revision): Promise<void> {
  await job.goTo(number)
  await load()
}

function at(saved: string): string {
  return new Date(saved).toLocaleString(undefined, { dateStyle: 'medium', timeStyle: 'short' })
}
</script>

<template>
  <ElDialog v-model="open" title="History" width="640" append-to-body @closed="emit('close')">
    <p class="second small">Nothing is ever overwritten: going back keeps what came after.</p>
    <ProblemNote v-if="problem" :problem="problem" />
    <ol v-if="rows">
      <li v-for="row in rows" :key="row.number" :class="{ shown: row.shown, beside: !row.before }">
        <span class="figure second">{{ row.number }}</span>
        <span>
          {{ inUnit(row.sentence, settings.unit) }}
          <span class="small second"
            >{{ at(row.saved) }}<template v-if="row.by">, {{ row.by }}</template
            ><template v-if="!row.before && !row.shown">, not part of what is shown</template></span
          >
        </span>
        <b v-if="row.shown" class="small">shown</b>
        <button v-else class="link small" @click="goTo(row)">Go to this</button>
      </li>
    </ol>
  </ElDialog>
</template>

<style scoped>
ol {
  max-height: 60vh;
  margin-top: 8px;
  overflow-y: auto;
}
li {
  display: grid;
  grid-template-columns: 36px minmax(0, 1fr) auto;
  gap: 8px;
  align-items: baseline;
  padding: 6px 8px;
  border-top: 1px solid var(--line);
}
li > span > span {
  display: block;
}
.shown {
  background: var(--deep-wash);
  color: var(--deep);
}
.beside {
  color: var(--second);
}
</style>
