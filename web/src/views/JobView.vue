<script setup lang="ts">
import { computed, defineAsyncComponent, nextTick, onMounted, ref, watch } from 'vue'
import { useRoute } from 'vue-router'
import { useMediaQuery } from '@vueuse/core'

import { api } from '../api/client'
import { connection } from '../api/connection'
import BasisStrip from '../components/BasisStrip.vue'
import BrokenJob from '../components/BrokenJob.vue'
import FindJob from '../components/FindJob.vue'
import JobName from '../components/JobName.vue'
import PageSkeleton from '../components/PageSkeleton.vue'
import PartsRail from '../components/PartsRail.vue'
import ProblemNote from '../components/ProblemNote.vue'
import RouteColumn from '../components/RouteColumn.vue'
import TitleLine from '../components/TitleLine.vue'
import { useProblem } from '../composables/useProblem'
import { useSay } from '../composables/useSay'
import { keysShown, useShortcuts } from '../composables/useShortcuts'
import { useChoices } from '../stores/choices'
import { useJob } from '../stores/job'

const ConflictDialog = defineAsyncComponent(() => import('../components/ConflictDialog.vue'))
const ActsMenu = defineAsyncComponent(() => import('../components/ActsMenu.vue'))
const HistoryDialog = defineAsyncComponent(() => import('../components/HistoryDialog.vue'))

/** A job's frame: title line, basis strip, route, the stop itself, parts rail. */
const job = useJob()
const say = useSay()
const route = useRoute()
const { problem: failed, tell } = useProblem()
const tight = useMediaQuery('(max-width: 1180px)')
const remembering = ref(false)
const finding = ref(false)

useShortcuts({
  undo: () => job.design?.can_undo && void job.undo(),
  redo: () => job.design?.can_redo && void job.redo(),
  escape: () => (job.selected = ''),
  find: () => (finding.value = !!job.design && !job.design.problem),
})

const open = () => tell(() => job.open(Number(route.params['id'])))
/** Archived, perhaps in another window: back to work, and as it is saved. */
const restore = () =>
  tell(async () => {
    await api.restore(Number(route.params['id']))
    job.problem = null
    await job.open(Number(route.params['id']))
  })
onMounted(open)
onMounted(() => void useChoices().load())
watch(() => route.params['id'], () => route.params['id'] && open()) // prettier-ignore

/** A problem whose field is not on the screen is said at the bottom instead. */
const homeless = ref(false)

watch([() => job.problem, () => route.name], async () => {
  await nextTick()
  const field = job.problem?.field.replace(/\/\d+$/, '') ?? ''
  homeless.value =
    job.problem !== null && !(field && document.querySelector(`[data-field^="${CSS.escape(field)}"]`))
})

const saved = computed(() => {
  if (connection.waiting) return 'not saved yet'
  return job.busy ? 'saving' : `saved ${say.moment(job.design!.saved)}`
})
/** For whoever listens instead of looking: what an edit led to. */
const said = computed(() => {
  const stop = job.route.find(({ key }) => key === 'prove')
  return job.design && !job.busy
    ? `Revision ${job.design.revision} saved. ${stop ? say.sentence(stop.line) : ''}`
    : ''
})
</script>

<template>
  <div class="job">
    <TitleLine>
      <template v-if="job.design">
        <JobName />
        <span class="revision"
          ><span class="number">revision {{ job.design.revision }} · </span>{{ saved }}</span
        >
      </template>
      <template #actions>
        <template v-if="job.design">
          <ElButton class="quiet" size="small" aria-label="Find" title="Find (/)" @click="finding = true">{{
            tight ? '/' : 'Find'
          }}</ElButton>
          <ElButton class="quiet" size="small" @click="remembering = true">History</ElButton>
          <ElButton class="quiet" size="small" :disabled="!job.design.can_undo" @click="job.undo"
            >Undo</ElButton
          >
          <ElButton class="quiet" size="small" :disabled="!job.design.can_redo" @click="job.redo"
            >Redo</ElButton
          >
          <ElButton class="quiet" size="small" aria-label="Keys" title="Keys (?)" @click="keysShown = true"
            >?</ElButton
          >
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
        <ElButton v-if="job.problem.code === 'archived'" size="small" @click="restore">Restore it</ElButton>
        <ElButton link size="small" @click="job.problem = null">Close</ElButton>
      </div>
    </template>
    <main v-else-if="failed" id="main" class="failed" tabindex="-1">
      <h1>This job cannot be opened</h1>
      <ProblemNote :problem="failed" />
      <p class="acts">
        <ElButton v-if="failed.code === 'archived'" type="primary" @click="restore">Restore it</ElButton>
        <ElButton v-else @click="open">Try again</ElButton>
        <RouterLink :to="{ name: 'home' }">All jobs</RouterLink>
      </p>
    </main>
    <PageSkeleton v-else />
    <p class="unseen" role="status" aria-live="polite">{{ said }}</p>
    <ActsMenu v-if="job.menuAt && job.selected" :key="job.menuAt.join()" />
    <ConflictDialog v-if="job.conflict" />
    <FindJob v-if="finding" @close="finding = false" />
    <HistoryDialog v-if="remembering && job.design" @close="remembering = false" />
  </div>
</template>

<style scoped>
.job {
  display: grid;
  grid-template-rows: auto auto minmax(0, 1fr) auto;
  height: 100%;
}
.middle {
  display: grid;
  grid-template-columns: 12rem minmax(0, 1fr) var(--ledger, 21.5rem);
  min-height: 0;
}
.revision {
  color: var(--title-second);
}
.note {
  position: fixed;
  left: 50%;
  bottom: 7.5rem;
  z-index: 30;
  display: flex;
  gap: 8px;
  max-width: min(42rem, calc(100vw - 24px));
  padding: 8px 12px;
  transform: translateX(-50%);
  background: var(--panel);
  border: 1px solid var(--bad);
}
.failed {
  display: grid;
  align-content: start;
  gap: 12px;
  max-width: 32rem;
  margin: 60px auto;
}
@media (max-width: 1240px) {
  .number {
    display: none;
  }
}
@media (max-width: 1180px) {
  .middle {
    grid-template-columns: 9.5rem minmax(0, 1fr) var(--ledger, 19.5rem);
  }
}
@media (max-width: 860px) {
  .job,
  .middle {
    display: block;
    height: auto;
  }
}
</style>
