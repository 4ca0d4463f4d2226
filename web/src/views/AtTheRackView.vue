<script setup lang="ts">
import { computed, onMounted, ref, shallowRef, useTemplateRef } from 'vue'
import { useRoute } from 'vue-router'

import { api, type Stock } from '../api/client'
import { connection, sure } from '../api/connection'
import BoardSpots from '../components/BoardSpots.vue'
import JobsOnBoard from '../components/JobsOnBoard.vue'
import NotchMark from '../components/NotchMark.vue'
import PageSkeleton from '../components/PageSkeleton.vue'
import ProblemNote from '../components/ProblemNote.vue'
import ThicknessStrip from '../components/ThicknessStrip.vue'
import ThicknessTape from '../components/ThicknessTape.vue'
import { useProblem } from '../composables/useProblem'
import { useSay } from '../composables/useSay'
import { SPOTS, useSpots } from '../composables/useSpots'
import { useSettings } from '../stores/settings'

/** A board measured at the rack, by thumb: spot by spot round its rim, with what the readings would do to the jobs of it. */
const route = useRoute()
const say = useSay()
const settings = useSettings()
const id = Number(route.params['id'])
const spots = useSpots(id)
const stock = shallowRef<Stock | null>(null)
const { problem, tell } = useProblem()
const tape = useTemplateRef('tape')
const typing = ref(false)
const typed = ref('')
const { problem: unread, tell: tellTyped } = useProblem()
/** While the core reads what was typed, nothing else is. */
const busy = ref(false)
const saving = ref(false)
const saved = ref(false)
const used = ref<number[]>([])

onMounted(() =>
  tell(async () => {
    stock.value = (await api.stocks()).find((one) => one.id === id) ?? null
  }),
)

const step = computed(() => (say.unit === 'in' ? '0.0005' : say.number(0.01, 2)))
const here = computed(() => spots.at.value)
/** What stands on the tape: the reading of this spot, else the one before, else what the board measured last. */
const shown = computed({
  get: () => {
    const own = spots.texts.value[here.value]
    const before = spots.counted.value.at(-1)?.text
    return mmOf(own ?? before) ?? stock.value?.thickness ?? 3
  },
  set: (mm: number) => (spots.now.value = mm),
})
const mmOf = (text: string | null | undefined) => (text ? Number(text.replace(' mm', '')) : null)
const isDone = computed(() => spots.texts.value.map((text) => text !== null))
const count = computed(() => spots.counted.value.length)
const off = computed(() => spots.doubtful.value[0] ?? null)
const reading = (spot: number) => say.length(mmOf(spots.texts.value[spot]) ?? 0)

/** Where the button leads: the next empty spot, then what stands off, then to the end. */
const leads = computed(() => {
  const { texts, at, doubtful } = spots
  const filled = texts.value.map((text, i) => text !== null || i === at.value)
  const empty = filled.findIndex((one) => !one)
  if (empty >= 0) return { words: `Next: spot ${empty + 1}`, end: false }
  const doubt = doubtful.value.find((spot) => spot !== at.value)
  if (doubt !== undefined) return { words: `Next: spot ${doubt + 1} again`, end: false }
  return { words: `Save ${filled.filter(Boolean).length} readings`, end: true }
})

function take(): void {
  if (spots.now.value === null) spots.now.value = shown.value
}

/** What stands on the tape counts as read when the button is pressed. */
async function go(): Promise<void> {
  if (!(await keepTyped())) return
  take()
  const { end } = leads.value
  spots.next()
  if (end) await save()
}

async function save(): Promise<void> {
  const readings = spots.counted.value.map(({ text }) => text)
  if (!readings.length) return
  saving.value = true
  const done = await tell(async () => {
    // What is said to be saved is what the server has.
    stock.value = await sure(() => api.changeStock(id, { readings, unit: settings.unit }))
  })
  saving.value = false
  if (!done) return
  saved.value = true
  spots.forget()
  await tell(async () => {
    spots.jobs.value = await api.jobsOnBoard(id, readings, settings.unit)
  })
}

/** The job takes the board as it measures now. */
const use = (job: number) =>
  tell(async () => {
    const design = await api.design(job)
    const boards = design.boards.filter(({ basis }) => basis.stock.id === String(id))
    const edits = boards.map((board) => ({
      verb: 'put' as const,
      path: `basis/${board.id}/stock`,
      value: id,
    }))
    await sure(() => api.edit(design, edits, settings.unit))
    used.value = [...used.value, job]
  })

function typeIt(): void {
  typed.value = say.short(shown.value)
  typing.value = true
}

/** What cannot be read stays as it was typed, with what is wrong with it. Asked once, however often it is wanted. */
let underWay: Promise<boolean> | null = null
function keepTyped(): Promise<boolean> {
  if (!typing.value) return Promise.resolve(true)
  underWay ??= readTyped().finally(() => (underWay = null))
  return underWay
}
async function readTyped(): Promise<boolean> {
  const spot = here.value
  busy.value = true
  const read = await tellTyped(async () => {
    const { values } = await api.lookAtReadings([typed.value], settings.unit)
    if (spot === here.value) spots.now.value = values[0]!
    else spots.kept.value = spots.kept.value.map((one, i) => (i === spot ? `${values[0]} mm` : one))
  })
  busy.value = false
  typing.value = !read
  return read
}

function pick(spot: number): void {
  if (spots.now.value !== null) spots.kept.value = spots.kept.value.map((one, i) => (i === here.value ? `${spots.now.value} mm` : one)) // prettier-ignore
  spots.now.value = null
  spots.at.value = spot
}
</script>

<template>
  <div class="rack">
    <header class="title-line">
      <RouterLink :to="{ name: 'home' }" class="home" aria-label="Lean Notch, all jobs"
        ><NotchMark state="here"
      /></RouterLink>
      <b>{{ stock?.document.name ?? 'Measure a board' }}</b>
      <span v-if="stock" class="nominal">nominal {{ say.short(stock.document.nominal) }}</span>
      <RouterLink class="out" :to="{ name: 'rack', params: { id } }">Stock rack</RouterLink>
    </header>
    <main v-if="stock && !saved" id="main" tabindex="-1">
      <section class="where">
        <BoardSpots
          :width="stock.document.sheet_width"
          :height="stock.document.sheet_height"
          :at="here"
          :done="isDone"
          :doubtful="spots.doubtful.value"
          @pick="pick"
        />
        <div>
          <h1>Spot {{ here + 1 }}, {{ SPOTS[here]!.name }}</h1>
          <p class="second">Jaws square, 10 mm in.</p>
        </div>
      </section>
      <section class="strip">
        <p v-if="spots.read.value" class="mean">
          mean <b class="figure">{{ say.length(spots.read.value.mean) }}</b> of {{ count
          }}<span v-if="off !== null" class="second">, spot {{ off + 1 }} stands off</span>
        </p>
        <ThicknessStrip
          v-if="spots.read.value"
          :readings="spots.read.value"
          :nominal="stock.document.nominal"
          :width="352"
        />
      </section>
      <p v-if="off !== null" class="doubt">
        <span
          ><b>Reading {{ off + 1 }} ({{ reading(off) }})</b> is far from the others. Measure that spot
          again.</span
        >
        <ElButton @click="spots.leaveOut(off)">Leave it out</ElButton>
      </p>
      <p v-if="!connection.online" class="doubt" role="status">
        No connection: the readings stay on this phone, and are sent when there is one.
      </p>
      <ProblemNote v-else-if="problem ?? spots.problem.value" :problem="(problem ?? spots.problem.value)!" />
      <section v-if="spots.jobs.value?.jobs.length" class="jobs">
        <h2>
          {{ spots.jobs.value.jobs.length + spots.jobs.value.more }} job{{
            spots.jobs.value.jobs.length === 1 ? '' : 's'
          }}
          of this board
          <span v-if="spots.read.value" class="figure second"
            >{{ say.length(stock.thickness) }} → <b>{{ say.length(spots.read.value.mean) }}</b></span
          >
        </h2>
        <JobsOnBoard :jobs="spots.jobs.value" :saved="false" :used="[]" />
      </section>
    </main>
    <main v-else-if="stock" id="main" class="saved" tabindex="-1">
      <h1>Saved: {{ stock.document.name }} measures {{ say.length(stock.thickness) }} {{ say.unit }}.</h1>
      <p class="second">
        Jobs keep what they were computed from until you say so. Files never change by themselves.
      </p>
      <ProblemNote v-if="problem" :problem="problem" />
      <JobsOnBoard v-if="spots.jobs.value" :jobs="spots.jobs.value" :saved="true" :used="used" @use="use" />
      <p class="acts">
        <ElButton @click="((saved = false), (used = []))">Measure it again</ElButton>
        <RouterLink :to="{ name: 'rack', params: { id } }">Stock rack</RouterLink>
      </p>
    </main>
    <main v-else-if="problem" id="main" class="saved"><ProblemNote :problem="problem" /></main>
    <PageSkeleton v-else />
    <footer v-if="stock && !saved">
      <ProblemNote v-if="typing && unread" :problem="unread" />
      <div class="now">
        <span class="small second">Reading<br />{{ here + 1 }} of {{ SPOTS.length }}</span>
        <form v-if="typing" @submit.prevent="keepTyped">
          <input
            v-model="typed"
            class="figure big"
            inputmode="decimal"
            aria-label="Reading"
            autofocus
            :readonly="busy"
            @blur="keepTyped"
          />
        </form>
        <button
          v-else
          type="button"
          class="figure big"
          :class="{ idle: spots.texts.value[here] === null }"
          @click="typeIt"
        >
          {{ say.length(shown) }}<span class="second unit">{{ say.unit }}</span>
        </button>
        <ElButton :disabled="spots.texts.value[here] === null" @click="spots.leaveOut(here)">Clear</ElButton>
      </div>
      <ThicknessTape ref="tape" v-model="shown" :label="`Reading at spot ${here + 1}`" />
      <div class="keys">
        <ElButton size="large" @click="tape?.by(-1)">− {{ step }}</ElButton>
        <ElButton size="large" :disabled="busy" @click="typeIt">Type it</ElButton>
        <ElButton size="large" @click="tape?.by(1)">+ {{ step }}</ElButton>
      </div>
      <ElButton class="go" type="primary" size="large" :loading="saving" @click="go">{{
        leads.words
      }}</ElButton>
    </footer>
  </div>
</template>

<style scoped>
.rack {
  display: grid;
  grid-template-rows: auto minmax(0, 1fr) auto;
  max-width: 30rem;
  height: 100%;
  margin: 0 auto;
  background: var(--sheet);
}
.title-line {
  display: flex;
  align-items: center;
  gap: 4px 12px;
  padding: 8px 16px;
  background: var(--title);
  color: var(--title-ink);
}
.home {
  min-width: 26px;
  min-height: 26px;
}
.home :deep(svg) {
  color: var(--title-ink);
}
.nominal,
.out {
  color: var(--title-second);
}
.out {
  margin-left: auto;
}
main {
  overflow-y: auto;
  padding: 4px 16px 12px;
}
main:focus {
  outline: none;
}
.where {
  display: flex;
  align-items: center;
  gap: 14px;
}
.strip {
  min-height: 5.6rem;
}
.mean {
  text-align: center;
}
.doubt {
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: 10px;
  padding: 8px 12px;
  background: var(--ochre-wash);
  border-left: 4px solid var(--ochre);
}
.jobs {
  margin-top: 10px;
}
.jobs h2 {
  display: flex;
  justify-content: space-between;
  gap: 8px;
}
.saved {
  display: grid;
  align-content: start;
  gap: 10px;
  padding-top: 18px;
}
footer {
  display: grid;
  gap: 8px;
  padding: 8px 16px 14px;
  background: var(--panel);
  border-top: 2px solid var(--ink);
}
.now {
  display: grid;
  grid-template-columns: 4.5rem 1fr 4.8rem;
  align-items: center;
}
.big {
  min-height: 3.4rem;
  padding: 0;
  border: 0;
  background: none;
  color: var(--ink);
  font-size: 3rem;
  font-weight: 700;
  line-height: 1.1;
  text-align: center;
}
input.big {
  width: 100%;
  border-bottom: 3px solid var(--deep);
}
.idle {
  color: var(--third);
}
.unit {
  margin-left: 8px;
  font-size: 1.3rem;
  font-weight: 400;
}
.keys {
  display: grid;
  grid-template-columns: 1fr 1fr 1fr;
  gap: 8px;
}
.keys > *,
.go {
  margin: 0;
  min-height: 3.1rem;
}
.go {
  min-height: 3.9rem;
  font-size: 1.35rem;
  font-weight: 600;
}
</style>
