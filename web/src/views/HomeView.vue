<script setup lang="ts">
import { defineAsyncComponent, onMounted, ref, shallowRef } from 'vue'
import { useRouter } from 'vue-router'
import type { UploadRawFile } from 'element-plus'

import { api, type Card } from '../api/client'
import ArchivedList from '../components/ArchivedList.vue'
import JobCard from '../components/JobCard.vue'
import ProblemNote from '../components/ProblemNote.vue'
import TitleLine from '../components/TitleLine.vue'
import { useProblem } from '../composables/useProblem'
import { notice } from '../kit/notice'

const StartDialog = defineAsyncComponent(() => import('../components/StartDialog.vue'))

/** The maker's jobs as silhouettes, and the way to a new one. */
const jobs = shallowRef<Card[] | null>(null)
const archived = shallowRef<Card[]>([])
const { problem, tell } = useProblem()
const starting = ref(false)
const router = useRouter()

onMounted(() => tell(load))

async function load(): Promise<void> {
  ;[jobs.value, archived.value] = await Promise.all([api.designs(), api.archived()])
}

const archive = ({ id, name }: Card) =>
  tell(async () => {
    await api.remove(id)
    await load()
    notice(`${name} is archived.`, () => void restore(id))
  })

const restore = (id: number) =>
  tell(async () => {
    await api.restore(id)
    await load()
  })

/** A packed job becomes a job of one's own. */
function unpack(file: UploadRawFile): false {
  void tell(async () => {
    const { id } = await api.unpack(file)
    await router.push({ name: 'shape', params: { id } })
  })
  return false
}
</script>

<template>
  <div>
    <TitleLine />
    <main id="main" tabindex="-1">
      <header>
        <h1>Jobs</h1>
        <ArchivedList what="jobs" :rows="archived" @restore="restore" />
        <span class="space" />
        <ElUpload accept=".zip" :show-file-list="false" :before-upload="unpack">
          <ElButton tag="span">Open a packed job</ElButton>
        </ElUpload>
        <ElButton type="primary" @click="starting = true">New job</ElButton>
      </header>
      <ProblemNote v-if="problem" :problem="problem" />
      <ElEmpty v-if="jobs?.length === 0" :image-size="0" description="No jobs yet.">
        <p class="second">
          A tray is a good first job: five panels, finger joints, one sheet. Have a board and a caliper at
          hand.
        </p>
      </ElEmpty>
      <ul v-if="jobs">
        <li v-for="job in jobs" :key="job.id"><JobCard :job="job" @archive="archive(job)" /></li>
      </ul>
      <ul v-else-if="!problem" role="status" aria-label="Loading jobs">
        <li v-for="n in 3" :key="n" class="card waiting"><ElSkeleton animated :rows="4" /></li>
      </ul>
      <StartDialog v-if="starting" @close="starting = false" />
    </main>
  </div>
</template>

<style scoped>
main {
  max-width: 90rem;
  margin: 0 auto;
  padding: 22px 24px;
}
main:focus {
  outline: none;
}
header {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px 16px;
  margin-bottom: 18px;
}
h1 {
  font-size: 1.5rem;
}
.space {
  flex: 1;
}
ul {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(100%, 19rem), 1fr));
  gap: 14px;
}
.waiting {
  min-height: 15rem;
}
</style>
