<script setup lang="ts">
import { useElementSize, useStorage } from '@vueuse/core'
import { computed, onMounted, onUnmounted, ref, shallowRef, useTemplateRef } from 'vue'
import { useRouter } from 'vue-router'

import { api, type Card, type TableNews } from '../api/client'
import ArchivedList from '../components/ArchivedList.vue'
import DropSlot from '../components/DropSlot.vue'
import JobMenu from '../components/JobMenu.vue'
import NewsLine from '../components/NewsLine.vue'
import ProblemNote from '../components/ProblemNote.vue'
import RecipeShelf from '../components/RecipeShelf.vue'
import RouteComb from '../components/RouteComb.vue'
import TableEdge from '../components/TableEdge.vue'
import TitleLine from '../components/TitleLine.vue'
import type { Act } from '../composables/useActs'
import { useProblem } from '../composables/useProblem'
import { boxOf } from '../geometry/pictured'
import { onEdges } from '../geometry/table'
import { notice } from '../kit/notice'
import { drop } from '../dropped'
import { useChoices } from '../stores/choices'

/** The workshop table: the maker's jobs stand on it to scale, recipes stand on the shelf below. */
const jobs = shallowRef<Card[] | null>(null)
const archived = shallowRef<Card[]>([])
const news = shallowRef<TableNews[]>([])
const { problem, tell } = useProblem()
const choices = useChoices()
const router = useRouter()
const wanted = ref('')
const menu = shallowRef<{ job: Card; at: HTMLElement } | null>(null)
const table = useTemplateRef('table')
const { width } = useElementSize(table)

const ORDERS = {
  touched: 'last touched first',
  name: 'by name',
  look: 'what wants a look first',
} as const
type Order = keyof typeof ORDERS
const order = useStorage<Order>('jobs-order', 'touched')

let later = 0
onMounted(() => tell(load))
onUnmounted(() => clearTimeout(later))
onMounted(() => tell(async () => void (await choices.load())))

const LATER_MS = 400

async function load(): Promise<void> {
  // Nothing jumps: what stands above the table is there before it.
  const [found, told] = await Promise.all([api.designs(), api.tableNews()])
  ;[jobs.value, news.value] = [found, told]
  // A few pictures are made at a time; the others are there the next time.
  if (jobs.value.some(({ pictured }) => !pictured)) later = window.setTimeout(() => void tell(load), LATER_MS)
  archived.value = await api.archived()
}

const wants = (job: Card) => Boolean(job.problem) || job.stands?.tone === 'look' || job.news.length > 0
const looks = computed(() => (jobs.value ?? []).filter(wants).length)
/** The one last at hand stands first, whatever the order of the others. */
const ordered = computed(() => {
  const [first, ...rest] = jobs.value ?? []
  if (!first) return []
  if (order.value === 'name') rest.sort((a, b) => a.name.localeCompare(b.name))
  if (order.value === 'look') rest.sort((a, b) => Number(wants(b)) - Number(wants(a)))
  return [first, ...rest]
})

/** Pictures grow with the type. */
const rem = () => parseFloat(getComputedStyle(document.documentElement).fontSize)
const edges = computed(() => {
  if (!width.value) return []
  const px = (0.68 / 15) * rem()
  const things = ordered.value.map((job, i) => {
    const box = boxOf(job)
    const shown = box[2] === box[0] ? ([0, 0, 60, 40] as const) : box
    // The first says what it needs beside its picture.
    const first = Math.max(18 * rem(), (shown[2] - shown[0]) * px + 9 * rem())
    return { job, box: shown, least: i ? 15 * rem() : first }
  })
  return onEdges(things, width.value, px)
})

/** Searched are jobs, their parts and their boards: for every word, wherever it stands. */
const found = (job: Card) => {
  const words = wanted.value.toLowerCase().split(/\s+/)
  const all = [job.name, ...job.titles, ...job.boards.map(({ name }) => name)].join(' ').toLowerCase()
  return words.every((word) => all.includes(word))
}
const hits = computed(() => (jobs.value ?? []).filter(found).length)

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

const duplicate = (job: Card) =>
  tell(async () => {
    const copy = await api.duplicate(job.id)
    await load()
    notice(`${copy.name} is on the table.`)
  })

function actsOf(job: Card): Act[] {
  const stops = job.stops.map(({ key, title }) => ({
    name: `Open at ${title}`,
    run: () => router.push(`/jobs/${job.id}/${key}`),
  }))
  return [
    ...stops,
    { name: 'Duplicate', run: () => duplicate(job) },
    { name: 'Archive', run: () => archive(job) },
  ]
}

/** A packed job becomes a job of one's own; any other file is looked at by Check. */
function take(file: File): void {
  if (!file.name.toLowerCase().endsWith('.zip')) {
    drop(file)
    void router.push({ name: 'check' })
    return
  }
  void tell(async () => {
    const { id } = await api.unpack(file)
    await router.push({ name: 'shape', params: { id } })
  })
}

const LEGEND = (['ready', 'ready', 'look', 'open'] as const).map((state, i) => ({
  key: String(i),
  title: '',
  state,
  wants: '',
}))
const isNew = computed(() => jobs.value?.length === 0 && archived.value.length === 0)
</script>

<template>
  <div class="home">
    <TitleLine />
    <NewsLine :news="news" />
    <main id="main" tabindex="-1">
      <header>
        <h1>On the table</h1>
        <span v-if="jobs?.length" class="second">
          {{ jobs.length }} job{{ jobs.length === 1 ? '' : 's'
          }}<template v-if="looks"> · {{ looks }} want{{ looks === 1 ? 's' : '' }} a look</template>
        </span>
        <ElDropdown v-if="(jobs?.length ?? 0) > 2" trigger="click" @command="order = $event as Order">
          <ElButton link>{{ ORDERS[order] }} ▾</ElButton>
          <template #dropdown>
            <ElDropdownMenu>
              <ElDropdownItem v-for="(words, key) in ORDERS" :key="key" :command="key">{{
                words
              }}</ElDropdownItem>
            </ElDropdownMenu>
          </template>
        </ElDropdown>
        <a v-if="edges.length > 1" class="down" href="#shelf">Start something</a>
        <ArchivedList what="jobs" :rows="archived" @restore="restore" />
        <span class="space" />
        <span v-if="jobs?.length" class="legend small second" aria-hidden="true">
          <RouteComb :stops="LEGEND" /> in order · stands proud: wants a look · not begun
        </span>
        <label v-if="(jobs?.length ?? 0) > 1" class="search">
          <span class="unseen">Find a job, a part, a board</span>
          <input v-model="wanted" type="search" placeholder="Find a job, a part, a board" />
        </label>
      </header>
      <ProblemNote v-if="problem" :problem="problem" />
      <p v-if="wanted.trim()" class="small second" role="status">{{ hits }} of {{ jobs?.length }} found</p>
      <div ref="table" class="table">
        <template v-if="jobs">
          <TableEdge
            v-for="(edge, i) in edges"
            :key="i"
            :edge="edge"
            :width="width"
            :first="ordered[0]?.id ?? null"
            :dimmed="(job) => !found(job)"
            @menu="(job, at) => (menu = { job, at })"
          />
        </template>
        <p v-else-if="!problem" role="status" aria-label="Loading jobs"><ElSkeleton animated :rows="5" /></p>
      </div>
      <section v-if="isNew" class="begin" aria-label="A first job">
        <h2>A first job in two minutes</h2>
        <ol>
          <li>
            <b>Measure the board</b> with a caliper, at five spots:
            <RouterLink :to="{ name: 'rack' }">Stock rack</RouterLink>
          </li>
          <li><b>Start a tray</b> from the shelf below, and type its sizes on the drawing</li>
          <li><b>Hand over</b> the file, once it is proved that the parts will fit</li>
        </ol>
      </section>
      <p v-else-if="jobs?.length === 0" class="second">
        The table is empty. Start something from the shelf, or restore an archived job.
      </p>
    </main>
    <section v-if="jobs || problem" id="shelf" class="low" aria-label="Start something">
      <div class="about">
        <h2>Start something</h2>
        <p class="small second">It opens as a drawing; type your sizes on it.</p>
      </div>
      <RecipeShelf v-if="choices.choices" :recipes="choices.choices.recipes" />
      <ElSkeleton v-else animated :rows="3" />
      <DropSlot @file="take" />
    </section>
    <JobMenu
      v-if="menu"
      :key="menu.job.id"
      :at="menu.at"
      :acts="actsOf(menu.job)"
      :label="menu.job.name"
      @close="menu = null"
    />
  </div>
</template>

<style scoped>
.home {
  display: grid;
  grid-template-rows: auto auto 1fr auto;
  grid-template-columns: minmax(0, 1fr);
  min-height: 100%;
  background: var(--sheet);
}
.home > :deep(.title-line) {
  grid-row: 1;
}
main {
  grid-row: 3;
  padding: 12px 24px 18px;
}
main:focus {
  outline: none;
}
main header {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 14px;
  min-height: 2.4rem;
}
.space {
  flex: 1;
}
.legend {
  display: flex;
  align-items: center;
  gap: 8px;
}
.search input {
  width: 15rem;
  min-height: 2rem;
  padding: 2px 4px;
  background: transparent;
  border: 0;
  border-bottom: 1px solid var(--edge);
  color: var(--ink);
}
.search input::placeholder {
  color: var(--second);
  opacity: 1;
}
.table {
  min-height: 9rem;
  padding-top: 10px;
}
.begin {
  display: grid;
  gap: 8px;
  max-width: 46rem;
}
.begin ol {
  display: grid;
  gap: 4px;
  list-style: decimal;
  padding-left: 1.4rem;
}
.low {
  grid-row: 4;
  display: grid;
  grid-template-columns: 8.5rem minmax(0, 1fr) auto;
  gap: 12px 24px;
  padding: 16px 24px 18px;
  background: var(--ground);
  border-top: 1px solid var(--line);
}
.about {
  display: grid;
  align-content: start;
  gap: 4px;
}
@media (max-width: 860px) {
  .legend {
    display: none;
  }
  .search,
  .search input {
    width: 100%;
  }
  .low {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
