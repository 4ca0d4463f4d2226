<script setup lang="ts">
import { defineAsyncComponent, onMounted, ref, shallowRef } from 'vue'

import { api, Problem, type Card } from '../api/client'
import JobCard from '../components/JobCard.vue'
import ProblemNote from '../components/ProblemNote.vue'
import TitleLine from '../components/TitleLine.vue'

const StartDialog = defineAsyncComponent(() => import('../components/StartDialog.vue'))

/** The maker's jobs as silhouettes, and the way to a new one. */
const jobs = shallowRef<Card[] | null>(null)
const removed = shallowRef<Card | null>(null)
const problem = shallowRef<Problem | null>(null)
const starting = ref(false)

onMounted(() => tell(load))

async function load(): Promise<void> {
  jobs.value = await api.designs()
}

async function tell(act: () => Promise<void>): Promise<void> {
  problem.value = null
  try {
    await act()
  } catch (error) {
    if (!(error instanceof Problem)) throw error
    problem.value = error
  }
}

const remove = (job: Card) =>
  tell(async () => {
    await api.remove(job.id)
    removed.value = job
    await load()
  })

const bringBack = () =>
  tell(async () => {
    await api.restore(removed.value!.id)
    removed.value = null
    await load()
  })
</script>

<template>
  <TitleLine />
  <main>
    <header>
      <h1>Your jobs</h1>
      <RouterLink class="check" :to="{ name: 'check' }">Check a drawing from elsewhere</RouterLink>
      <button class="strong" @click="starting = true">Start a tray</button>
    </header>
    <ProblemNote v-if="problem" :problem="problem" />
    <p v-if="removed" class="removed" role="status">
      {{ removed.name }} is put away. <button class="link" @click="bringBack">bring it back</button>
    </p>
    <p v-if="jobs?.length === 0" class="empty second">
      Nothing here yet. A tray is a good first job: five panels, finger joints, one sheet. Have a board and a
      caliper at hand.
    </p>
    <ul>
      <li v-for="job in jobs ?? []" :key="job.id"><JobCard :job="job" @remove="remove(job)" /></li>
    </ul>
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
.removed {
  margin-bottom: 12px;
  padding: 6px 12px;
  background: var(--ochre-wash);
}
.empty {
  max-width: 420px;
  padding: 40px 0;
}
</style>
