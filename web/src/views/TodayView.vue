<script setup lang="ts">
import { computed, onMounted, onUnmounted, ref } from 'vue'

import {
  api,
  Problem,
  type Changes,
  type Concerned,
  type Design,
  type Following,
  type Held,
} from '../api/client'
import { isChanges } from '../api/changes'
import ChangeList from '../components/ChangeList.vue'
import PageSkeleton from '../components/PageSkeleton.vue'
import ProblemNote from '../components/ProblemNote.vue'
import TitleLine from '../components/TitleLine.vue'
import { useProblem } from '../composables/useProblem'
import { useSay } from '../composables/useSay'

/** The jobs that were computed from older figures than the workshop has now, and what following would make of each. */
interface Row {
  job: Concerned
  /** Where it stands now: its moves and revision, to follow or undo from. */
  held: Held
  found: Following | null
  state: 'waiting' | 'looked at' | 'followed' | 'undone'
  problem: Problem | null
}
const say = useSay()
const { problem, tell } = useProblem()
const rows = ref<Row[] | null>(null)
/** What is under way over all rows, one after the other, and how far it is. */
const under = ref<{ words: string; done: number; of: number } | null>(null)
/** Counts what was begun: a loop that was stopped does not go on when another begins. */
let begun = 0
onUnmounted(stop)

function stop(): void {
  begun++
  under.value = null
}

onMounted(() =>
  tell(async () => {
    const found = await api.concerned()
    rows.value = found.map((job) => ({
      job,
      held: { id: job.id, moves: job.moves, revision: job.revision },
      found: null,
      state: 'waiting',
      problem: null,
    }))
    await overAll('Looking at', rows.value, look)
  }),
)

async function overAll(words: string, some: Row[], act: (row: Row) => Promise<void>): Promise<void> {
  const mine = ++begun
  for (const [done, row] of some.entries()) {
    if (mine !== begun) return
    under.value = { words, done: done + 1, of: some.length }
    await act(row)
  }
  if (mine === begun) under.value = null
}

/** A problem stays at its row, and the others go on. */
async function at(row: Row, act: () => Promise<void>): Promise<void> {
  row.problem = null
  try {
    await act()
  } catch (error) {
    if (!(error instanceof Problem)) throw error
    row.problem = error
  }
}

const look = (row: Row) =>
  at(row, async () => {
    row.found = await api.following(row.job.id)
    const { moves, revision } = row.found
    row.held = { ...row.held, moves, revision }
    row.state = 'looked at'
  })

function heldAfter({ held }: Row, answer: Design | Changes): Held {
  const { moves, revision } = (isChanges(answer) ? answer.plain : answer) as Held
  return { ...held, moves, revision }
}

const follow = (row: Row) =>
  at(row, async () => {
    row.held = heldAfter(row, await api.follow(row.held))
    row.state = 'followed'
  })

const undo = (row: Row) =>
  at(row, async () => {
    row.held = heldAfter(row, await api.undo(row.held))
    row.state = 'undone'
  })

const canFollow = (row: Row) => row.found !== null && !row.found.stays && row.state !== 'followed'
const groups = computed(() => {
  const all = rows.value ?? []
  const stay = all.filter((row) => row.found?.stays)
  const others = all.filter((row) => !row.found?.stays)
  return [
    {
      title: 'Can follow',
      about: '',
      rows: others.filter(({ job }) => !job.handed),
    },
    {
      title: 'Handed over before',
      about:
        'Files that were handed over stay as they are; what is written from now on is of the new figures.',
      rows: others.filter(({ job }) => job.handed),
    },
    { title: 'Stay as they are', about: 'On the new figures these would not build or not fit.', rows: stay },
  ].filter((group) => group.rows.length)
})
const ready = computed(() => (rows.value ?? []).filter(canFollow))
const followAll = () => overAll('Following with', [...ready.value], follow)
</script>

<template>
  <div class="page">
    <TitleLine />
    <main id="main" tabindex="-1">
      <header>
        <h1>Newer in the workshop</h1>
        <span v-if="rows?.length" class="second">
          {{ rows.length }} job{{ rows.length === 1 ? '' : 's' }} computed from older figures
        </span>
        <span class="acts">
          <template v-if="under">
            <span role="status">{{ under.words }} {{ under.done }} of {{ under.of }}</span>
            <ElButton @click="stop">Stop</ElButton>
          </template>
          <ElButton v-else-if="ready.length > 1" type="primary" @click="followAll"
            >Follow with all {{ ready.length }}</ElButton
          >
        </span>
      </header>
      <ProblemNote v-if="problem" :problem="problem" />
      <PageSkeleton v-else-if="!rows" frame="list" />
      <p v-else-if="!rows.length" class="second">
        Every job is computed from what the workshop has now.
        <RouterLink :to="{ name: 'home' }">To the table</RouterLink>
      </p>
      <section v-for="group in groups" :key="group.title" :aria-label="group.title">
        <h2>{{ group.title }}</h2>
        <p v-if="group.about" class="small second">{{ group.about }}</p>
        <ul class="rows">
          <li v-for="row in group.rows" :key="row.job.id">
            <div class="what">
              <RouterLink :to="{ name: 'measure', params: { id: row.job.id } }"
                ><b>{{ row.job.name }}</b></RouterLink
              >
              <p v-for="one in row.job.said" :key="one" class="small">{{ say.sentence(one) }}.</p>
            </div>
            <div>
              <p v-if="row.found?.stays">
                {{ say.sentence(row.found.stays.why) }} {{ say.sentence(row.found.stays.fix) }}
              </p>
              <details v-else-if="row.found?.changes.length">
                <summary>
                  {{ row.found.changes.length + row.found.more }} figure{{
                    row.found.changes.length + row.found.more > 1 ? 's' : ''
                  }}
                  {{ row.state === 'followed' ? 'changed' : 'would change' }}
                </summary>
                <ChangeList :changes="row.found.changes" />
                <p v-if="row.found.more" class="small second">and {{ row.found.more }} more</p>
              </details>
              <p v-else-if="row.found" class="small second">No figure of it would change.</p>
              <p v-else-if="!row.problem" class="small second">not looked at yet</p>
              <p v-if="row.problem" class="bad small" role="alert">
                {{ say.sentence(row.problem.why) }} {{ say.sentence(row.problem.fix) }}
              </p>
            </div>
            <div class="act">
              <template v-if="row.state === 'followed'">
                <span class="good">✓ Follows now, not proved yet</span>
                <ElButton size="small" :disabled="!!under" @click="undo(row)">Undo</ElButton>
              </template>
              <ElButton v-else-if="canFollow(row)" :disabled="!!under" @click="follow(row)">Follow</ElButton>
              <ElButton v-else-if="row.problem" size="small" :disabled="!!under" @click="look(row)"
                >Look again</ElButton
              >
            </div>
          </li>
        </ul>
      </section>
    </main>
  </div>
</template>

<style scoped>
.page {
  min-height: 100%;
  background: var(--sheet);
}
main {
  max-width: 72rem;
  padding: 12px 24px 24px;
}
main:focus {
  outline: none;
}
header {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 14px;
  min-height: 2.6rem;
}
.acts {
  display: flex;
  align-items: center;
  gap: 10px;
  margin-left: auto;
}
section {
  margin-top: 16px;
}
.rows > li {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1.2fr) 15rem;
  gap: 6px 20px;
  align-items: start;
  padding: 9px 0;
  border-top: 1px solid var(--line);
}
.act {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  justify-content: flex-end;
  gap: 4px 10px;
}
.good {
  color: var(--deep);
}
.bad {
  color: var(--bad);
}
@media (max-width: 860px) {
  .rows > li {
    grid-template-columns: minmax(0, 1fr);
  }
  .act {
    justify-content: flex-start;
  }
}
</style>
