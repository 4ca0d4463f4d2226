<script setup lang="ts">
import { computed, onUnmounted, ref, shallowRef } from 'vue'

import { api, Problem, type Check, type Task } from '../api/client'
import { whole } from '../api/tasks'
import DrawingFrame from '../components/DrawingFrame.vue'
import FindingList from '../components/FindingList.vue'
import ProblemNote from '../components/ProblemNote.vue'
import TaskNote from '../components/TaskNote.vue'
import TitleLine from '../components/TitleLine.vue'
import { useSettings } from '../stores/settings'
import { shortText } from '../units'

/** Any drawing from anywhere, looked over before it goes to a machine. */
const settings = useSettings()
const check = shallowRef<Check | null>(null)
const problem = shallowRef<Problem | null>(null)
const busy = ref(false)
const task = shallowRef<Task | null>(null)
let left = false
onUnmounted(() => (left = true))
const over = ref(false)
const drawing = ref<InstanceType<typeof DrawingFrame> | null>(null)
const length = (mm: number) => shortText(mm, settings.unit)

const box = computed(() => {
  const [left, low, right, high] = check.value?.box ?? [0, 0, 100, 100]
  const slack = Math.max(right - left, high - low) * 0.04 + 0.5
  return [left - slack, low - slack, right + slack, high + slack] as const
})
const places = computed(() => check.value?.findings.filter(({ place }) => place) ?? [])

async function look(file: File | undefined): Promise<void> {
  over.value = false
  if (!file) return
  problem.value = null
  busy.value = true
  try {
    const found = await whole(() => api.check(file), {
      watch: (now) => (task.value = now),
      unwanted: () => left,
    })
    if (found) check.value = found
  } catch (error) {
    if (!(error instanceof Problem)) throw error
    problem.value = error
  } finally {
    busy.value = false
  }
}

/** The same file may be chosen again after it was mended. */
async function pick(input: HTMLInputElement): Promise<void> {
  await look(input.files?.[0])
  input.value = ''
}

function lookAt([x, y]: readonly [number, number]): void {
  const reach = Math.max((box.value[2] - box.value[0]) / 30, 1)
  drawing.value?.lookAt([x - reach, y - reach, x + reach, y + reach])
}
</script>

<template>
  <div class="page">
    <TitleLine />
    <div class="middle">
      <main
        :class="{ over }"
        @dragover.prevent="over = true"
        @dragleave="over = false"
        @drop.prevent="look($event.dataTransfer?.files[0])"
      >
        <header>
          <h1>Check a drawing</h1>
          <span class="second">{{ check ? check.name : 'any SVG or DXF, before it goes to a machine' }}</span>
          <label class="strong pick">
            {{ busy ? 'looking' : check ? 'Choose another' : 'Choose a file' }}
            <input
              class="unseen"
              type="file"
              accept=".svg,.dxf"
              :disabled="busy"
              @change="pick($event.target as HTMLInputElement)"
            />
          </label>
        </header>
        <TaskNote v-if="task" :task="task" />
        <ProblemNote v-else-if="problem" class="note" :problem="problem" />
        <DrawingFrame v-if="check" ref="drawing" :box="box" :label="check.name">
          <template #default>
            <rect v-if="check.page" class="sheet" :width="check.page[0]" :height="check.page[1]" />
            <path
              v-for="(line, i) in check.lines"
              :key="i"
              class="line"
              :class="{ open: !line.closed }"
              :d="line.path"
            />
          </template>
          <template #over="{ at }">
            <circle
              v-for="(finding, i) in places"
              :key="i"
              class="place"
              :class="finding.severity"
              :cx="at(finding.place!)[0]"
              :cy="at(finding.place!)[1]"
              r="8"
            >
              <title>{{ finding.why }}</title>
            </circle>
          </template>
        </DrawingFrame>
        <p v-else class="empty second">
          Drop a file here. It is looked over for its size and unit, open and doubled outlines, crossings,
          stray points, circles made of short lines, text that is still text, fills, lines nobody can see, and
          cuts too near to each other. Nothing is kept.
        </p>
      </main>
      <aside v-if="check">
        <p class="verdict" :class="{ bad: !check.sound }">
          {{ check.sound ? 'Nothing to stop for' : 'Do not cut it as it is' }}
        </p>
        <ul class="facts">
          <li>
            unit <span>{{ check.unit || 'not named' }}</span>
          </li>
          <li v-if="check.box">
            drawing
            <span class="figure"
              >{{ length(check.box[2] - check.box[0]) }} × {{ length(check.box[3] - check.box[1]) }}
              {{ settings.unit }}</span
            >
          </li>
          <li v-if="check.page">
            page
            <span class="figure"
              >{{ length(check.page[0]) }} × {{ length(check.page[1]) }} {{ settings.unit }}</span
            >
          </li>
        </ul>
        <table>
          <thead>
            <tr class="small second">
              <th>layer</th>
              <th>paths</th>
              <th>closed</th>
              <th>nodes</th>
              <th>length</th>
            </tr>
          </thead>
          <tbody class="figure small">
            <tr v-for="row in check.layers" :key="row.layer">
              <td>{{ row.layer || '(none)' }}</td>
              <td>{{ row.paths }}</td>
              <td>{{ row.closed }}</td>
              <td>{{ row.nodes }}</td>
              <td>{{ length(row.length) }}</td>
            </tr>
          </tbody>
        </table>
        <FindingList :findings="check.findings" :fresh="true" @show="({ place }) => place && lookAt(place)" />
      </aside>
    </div>
  </div>
</template>

<style scoped>
.page {
  display: grid;
  grid-template-rows: 38px minmax(0, 1fr);
  height: 100%;
  min-width: 1080px;
}
.middle {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  min-height: 0;
}
main {
  display: grid;
  grid-template-rows: auto auto minmax(0, 1fr);
  min-height: 0;
  background: var(--sheet);
}
main > .frame,
main > .empty {
  grid-row: 3;
}
main.over {
  outline: 3px solid var(--deep);
  outline-offset: -8px;
}
header {
  display: flex;
  align-items: center;
  gap: 12px;
  padding: 12px 22px 8px;
}
h1 {
  font-size: 16px;
  font-weight: 600;
}
.pick {
  margin-left: auto;
  border-radius: 3px;
  cursor: pointer;
}
.pick:focus-within {
  outline: 2px solid var(--deep);
  outline-offset: 1px;
}
.note {
  margin: 0 22px 10px;
}
.empty {
  max-width: 480px;
  padding: 60px 22px;
}
aside {
  width: 336px;
  overflow-y: auto;
  background: var(--panel);
  border-left: 1px solid var(--line);
}
.verdict {
  padding: 10px 18px;
  font-size: 15.5px;
  font-weight: 600;
  color: var(--deep);
  background: var(--deep-wash);
}
.verdict.bad {
  color: var(--bad);
  background: var(--bad-wash);
}
.facts li {
  display: flex;
  justify-content: space-between;
  padding: 4px 18px;
  border-bottom: 1px solid var(--line);
}
table {
  width: 100%;
  margin: 10px 0;
  border-collapse: collapse;
}
th,
td {
  padding: 3px 8px;
  text-align: right;
  font-weight: 400;
}
th:first-child,
td:first-child {
  padding-left: 18px;
  text-align: left;
  word-break: break-all;
}
.sheet {
  fill: none;
  stroke: var(--line);
}
.line {
  fill: none;
  stroke: var(--ink);
  stroke-width: 1.2;
}
.line.open {
  stroke: var(--fold);
}
.place {
  fill: none;
  stroke: var(--ochre);
  stroke-width: 2;
}
.place.stop {
  stroke: var(--bad);
  stroke-width: 3;
}
</style>
