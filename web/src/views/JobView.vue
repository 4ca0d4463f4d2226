<script setup lang="ts">
import { defineAsyncComponent, nextTick, onMounted, ref, shallowRef, watch } from 'vue'
import { useRoute } from 'vue-router'

import { Problem } from '../api/client'
import BasisStrip from '../components/BasisStrip.vue'
import BrokenJob from '../components/BrokenJob.vue'
import JobName from '../components/JobName.vue'
import PartsRail from '../components/PartsRail.vue'
import ProblemNote from '../components/ProblemNote.vue'
import RouteColumn from '../components/RouteColumn.vue'
import TitleLine from '../components/TitleLine.vue'
import { useShortcuts } from '../composables/useShortcuts'
import { useJob } from '../stores/job'

const ConflictDialog = defineAsyncComponent(() => import('../components/ConflictDialog.vue'))
const HistoryDialog = defineAsyncComponent(() => import('../components/HistoryDialog.vue'))

/** A job's frame: title line, basis strip, route, the stop itself, parts rail. */
const job = useJob()
const route = useRoute()
const failed = shallowRef<Problem | null>(null)
const remembering = ref(false)

useShortcuts({
  undo: () => job.design?.can_undo && void job.undo(),
  redo: () => job.design?.can_redo && void job.redo(),
})

async function open(): Promise<void> {
  failed.value = null
  try {
    await job.open(Number(route.params['id']))
  } catch (error) {
    if (!(error instanceof Problem)) throw error
    failed.value = error
  }
}

onMounted(open)
watch(() => route.params['id'], open)

/** A problem whose field is not on the screen is said at the bottom instead. */
const homeless = ref(false)

watch([() => job.problem, () => route.name], async () => {
  await nextTick()
  const field = job.problem?.field.replace(/\/\d+$/, '') ?? ''
  homeless.value =
    job.problem !== null && !(field && document.querySelector(`[data-field^="${CSS.escape(field)}"]`))
})

function savedAt(saved: string): string {
  return new Date(saved).toLocaleTimeString(undefined, { hour: '2-digit', minute: '2-digit' })
}
</script>

<template>
  <div class="job">
    <TitleLine>
      <template v-if="job.design">
        <JobName />
        <span class="revision">
          revision {{ job.design.revision }} ·
          {{ job.busy ? 'saving' : `saved ${savedAt(job.design.saved)}` }}
        </span>
      </template>
      <template #actions>
        <template v-if="job.design">
          <button class="quiet" @click="remembering = true">History</button>
          <button class="quiet" :disabled="!job.design.can_undo" @click="job.undo">Undo</button>
          <button class="quiet" :disabled="!job.design.can_redo" @click="job.redo">Redo</button>
        </template>
      </template>
    </TitleLine>
    <template v-if="job.design?.problem">
      <BasisStrip v-if="job.design.boards.length" />
      <BrokenJob />
    </template>
    <template v-else-if="job.design">
      <BasisStrip />
      <div class="middle">
        <RouteColumn :stops="job.route" />
        <RouterView />
      </div>
      <PartsRail />
      <div v-if="job.problem && homeless" class="note">
        <ProblemNote :problem="job.problem" />
        <button class="link small" @click="job.problem = null">Close</button>
      </div>
    </template>
    <main v-else-if="failed" class="failed"><ProblemNote :problem="failed" /></main>
    <ConflictDialog v-if="job.conflict" />
    <HistoryDialog v-if="remembering && job.design" @close="remembering = false" />
  </div>
</template>

<style scoped>
.job {
  display: grid;
  grid-template-rows: 38px 58px minmax(0, 1fr) 96px;
  height: 100%;
  min-width: 1080px;
}
.middle {
  display: grid;
  grid-template-columns: 178px minmax(0, 1fr) 316px;
  min-height: 0;
}
.revision {
  color: var(--title-second);
}
.note {
  position: fixed;
  left: 50%;
  bottom: 112px;
  z-index: 30;
  display: flex;
  gap: 8px;
  max-width: 640px;
  padding: 8px 12px;
  transform: translateX(-50%);
  background: var(--panel);
  border: 1px solid var(--bad);
}
.failed {
  max-width: 480px;
  margin: 60px auto;
}
</style>
