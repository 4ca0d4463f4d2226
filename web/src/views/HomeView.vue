<script setup lang="ts">
import { defineAsyncComponent, onMounted, ref, shallowRef } from 'vue'
import { useRouter } from 'vue-router'

import { api, type Card } from '../api/client'
import ArchivedList from '../components/ArchivedList.vue'
import JobCard from '../components/JobCard.vue'
import ProblemNote from '../components/ProblemNote.vue'
import TitleLine from '../components/TitleLine.vue'
import { useProblem } from '../composables/useProblem'

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

const archive = (job: Card) =>
  tell(async () => {
    await api.remove(job.id)
    await load()
  })

const restore = (id: number) =>
  tell(async () => {
    await api.restore(id)
    await load()
  })

/** A packed job becomes a job of one's own. */
async function unpack(event: Event): Promise<void> {
  const input = event.target as HTMLInputElement
  const file = input.files?.[0]
  input.value = ''
  if (!file) return
  await tell(async () => {
    const { id } = await api.unpack(file)
    await router.push({ name: 'shape', params: { id } })
  })
}
</script>

<template>
  <TitleLine />
  <main>
    <header>
      <h1>Your jobs</h1>
      <RouterLink class="check" :to="{ name: 'check' }">Check a drawing from elsewhere</RouterLink>
      <label class="link open">
        Open a packed job
        <input class="unseen" type="file" accept=".zip" @change="unpack" />
      </label>
      <button class="strong" @click="starting = true">New job</button>
    </header>
    <ProblemNote v-if="problem" :problem="problem" />
    <p v-if="jobs?.length === 0" class="empty second">
      Nothing here yet. A tray is a good first job: five panels, finger joints, one sheet. Have a board and a
      caliper at hand.
    </p>
    <ul>
      <li v-for="job in jobs ?? []" :key="job.id"><JobCard :job="job" @archive="archive(job)" /></li>
    </ul>
    <ArchivedList :rows="archived" @restore="restore" />
    <StartDialog v-if="starting" @close="starting = false" />
  </main>
</template>

<style scoped>
main {
  max-width: 1180px;
  margin: 0 auto;
  padding: 26px 24px;
}
header {
  display: flex;
  align-items: center;
  gap: 16px;
  margin-bottom: 18px;
}
h1 {
  font-size: 22px;
  font-weight: 600;
}
ul {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(280px, 1fr));
  gap: 14px;
}
.check {
  margin-left: auto;
  color: var(--deep);
}
.open {
  cursor: pointer;
}
.open:focus-within {
  outline: 2px solid var(--deep);
}
.empty {
  max-width: 420px;
  padding: 40px 0;
}
</style>
