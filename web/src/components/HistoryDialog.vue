<script setup lang="ts">
import { onMounted, ref, shallowRef } from 'vue'

import { api, type Revision } from '../api/client'
import { useProblem } from '../composables/useProblem'
import { useSay } from '../composables/useSay'
import { useJob } from '../stores/job'
import ProblemNote from './ProblemNote.vue'

/** Every revision in words, the newest first, with the way back to any of them. */
const emit = defineEmits<{ close: [] }>()
const job = useJob()
const say = useSay()
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
</script>

<template>
  <ElDialog v-model="open" title="History" width="42rem" append-to-body @closed="emit('close')">
    <p class="second small">Nothing is ever overwritten: going back keeps what came after.</p>
    <ProblemNote v-if="problem" :problem="problem" />
    <ElSkeleton v-if="!rows && !problem" animated :rows="4" />
    <ElTimeline v-if="rows" class="rows">
      <ElTimelineItem
        v-for="row in rows"
        :key="row.number"
        hide-timestamp
        :type="row.shown ? 'primary' : 'info'"
        :hollow="!row.before"
      >
        <div class="row" :class="{ shown: row.shown }">
          <span>
            <span :class="{ second: !row.before }">{{ say.sentence(row.sentence) }}</span>
            <span class="small second"
              >revision {{ row.number }}, {{ say.moment(row.saved)
              }}<template v-if="row.by">, {{ row.by }}</template
              ><template v-if="!row.before && !row.shown">, not part of what is shown</template></span
            >
          </span>
          <b v-if="row.shown" class="small">Shown</b>
          <ElButton v-else link size="small" @click="goTo(row)">Go to this</ElButton>
        </div>
      </ElTimelineItem>
    </ElTimeline>
  </ElDialog>
</template>

<style scoped>
.rows {
  max-height: 60vh;
  margin-top: 10px;
  padding: 4px 4px 0;
  overflow-y: auto;
}
.row {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 8px;
  align-items: baseline;
}
.row span span {
  display: block;
}
.shown {
  color: var(--deep);
}
</style>
