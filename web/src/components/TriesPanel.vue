<script setup lang="ts">
import { computed, onMounted, ref, shallowRef, watch } from 'vue'
import { useRouter } from 'vue-router'

import { api, type Machine, type Stock, type Swap, type Trial } from '../api/client'
import { useProblem } from '../composables/useProblem'
import { useJob } from '../stores/job'
import { useSettings } from '../stores/settings'
import { figureOf, isChanged, rowsOf, type Row } from '../tries'
import { inUnit, lengthText, shortText, timeText } from '../units'
import ProblemNote from './ProblemNote.vue'

/** This job on other boards and machines, side by side: what changes, what fails, what it takes. Adopt one, or save it as a variant. */
const job = useJob()
const settings = useSettings()
const router = useRouter()
const rack = shallowRef<Stock[]>([])
const machines = shallowRef<Machine[]>([])
const chosen = ref<Swap[]>([])
const trials = shallowRef<Trial[]>([])
const { problem, tell } = useProblem()
const busy = ref(false)
const length = (mm: number) => lengthText(mm, settings.unit)

onMounted(async () => {
  ;[rack.value, machines.value] = await Promise.all([api.stocks(), api.machines()])
})

const rows = computed(() => rowsOf(trials.value))
const isChosen = (name: 'stock' | 'machine', id: number) =>
  chosen.value.some((swap) => swap[name] === id && swap.board === job.board!.id)

async function attempt(act: () => Promise<void>): Promise<void> {
  busy.value = true
  await tell(act)
  busy.value = false
}

watch([chosen, () => job.pauses], () =>
  attempt(async () => {
    trials.value = chosen.value.length ? await api.tries(job.design!.id, chosen.value) : []
  }),
)

/** "stock 3" or "machine 2", as the list of what may be put beside gives it. */
function add(event: Event): void {
  const select = event.target as HTMLSelectElement
  const [name, id] = select.value.split(' ')
  chosen.value = [...chosen.value, { board: job.board!.id, [name!]: Number(id) }]
  select.value = ''
}

const drop = (index: number) => (chosen.value = chosen.value.filter((_, i) => i !== index))

async function adopt(index: number): Promise<void> {
  const { board, ...numbers } = chosen.value[index]!
  const edits = Object.entries(numbers)
    .filter(([, id]) => id != null)
    .map(([what, value]) => ({ verb: 'put' as const, path: `basis/${board}/${what}`, value }))
  if (await job.edit(...edits)) drop(index)
}

const saveVariant = (index: number) =>
  attempt(async () => {
    const { stock, machine } = trials.value[index + 1]!
    const what = chosen.value[index]!.stock ? stock : machine
    const name = `${job.design!.name}, ${what}`.slice(0, 80)
    const variant = await api.saveVariant(job.design!.id, name, chosen.value[index]!)
    await router.push({ name: 'measure', params: { id: variant.id } })
  })

function after(row: Row, trial: Trial): string {
  const mm = figureOf(row, trial, trials.value)
  return mm === null ? '–' : length(mm)
}
</script>

<template>
  <section class="tries">
    <header>
      <h2>Try another basis</h2>
      <select class="boxed" aria-label="what to try" @change="add">
        <option value="">put a board or a machine beside it</option>
        <optgroup label="boards">
          <option
            v-for="one in rack"
            :key="one.id"
            :value="`stock ${one.id}`"
            :disabled="isChosen('stock', one.id)"
          >
            {{ one.document.name }}, {{ shortText(one.thickness, settings.unit) }} {{ settings.unit }}
          </option>
        </optgroup>
        <optgroup label="machines">
          <option
            v-for="one in machines"
            :key="one.id"
            :value="`machine ${one.id}`"
            :disabled="isChosen('machine', one.id)"
          >
            {{ one.document.name }}
          </option>
        </optgroup>
      </select>
      <span v-if="busy" class="small second">trying</span>
    </header>
    <ProblemNote v-if="problem" :problem="problem" />
    <table v-if="trials.length > 1">
      <colgroup>
        <col style="width: 128px" />
      </colgroup>
      <thead>
        <tr>
          <td />
          <th v-for="(trial, i) in trials" :key="i" scope="col">
            {{ trial.stock }}
            <span class="small second">{{ i ? trial.machine : `${trial.machine}, as it is now` }}</span>
          </th>
        </tr>
      </thead>
      <tbody class="figure">
        <tr>
          <th scope="row">thickness</th>
          <td v-for="(trial, i) in trials" :key="i">{{ length(trial.thickness) }}</td>
        </tr>
        <tr>
          <th scope="row">kerf</th>
          <td
            v-for="(trial, i) in trials"
            :key="i"
            :class="{ ochre: trial.doubts.length }"
            :title="trial.doubts.join(' ')"
          >
            {{ length(trial.kerf) }}<template v-if="trial.doubts.length"> ?</template>
          </td>
        </tr>
        <tr>
          <th scope="row">a slot for it</th>
          <td v-for="(trial, i) in trials" :key="i">{{ length(trial.slot) }}</td>
        </tr>
        <tr v-for="row in rows.job" :key="row.key">
          <th scope="row">{{ row.title }}</th>
          <td v-for="(trial, i) in trials" :key="i" :class="{ changed: isChanged(row, trial) }">
            {{ after(row, trial) }}
          </td>
        </tr>
        <tr>
          <th scope="row">joints</th>
          <td v-for="(trial, i) in trials" :key="i" class="words">
            <template v-if="trial.problem">–</template>
            <template v-else>
              {{ trial.verdict }}
              <span v-if="trial.failing.length" class="bad small"
                >{{ trial.failing.length }} of {{ trial.joints }} fail: {{ trial.failing.join(', ') }}</span
              >
              <span v-if="trial.wants" class="small ochre">{{ inUnit(trial.wants, settings.unit) }}</span>
              <span v-for="warning in trial.warnings" :key="warning" class="small ochre">{{
                inUnit(warning, settings.unit)
              }}</span>
            </template>
          </td>
        </tr>
        <tr>
          <th scope="row">sheets</th>
          <td v-for="(trial, i) in trials" :key="i">
            <template v-if="!trial.problem">
              {{ trial.sheets }} <span class="small second">{{ (trial.used * 100).toFixed(0) }} % used</span>
            </template>
            <template v-else>–</template>
          </td>
        </tr>
        <tr>
          <th scope="row">time</th>
          <td v-for="(trial, i) in trials" :key="i">{{ trial.problem ? '–' : timeText(trial.seconds) }}</td>
        </tr>
        <tr>
          <th scope="row">price of the sheets</th>
          <td v-for="(trial, i) in trials" :key="i">
            {{ trial.problem ? '–' : trial.price === null ? 'not known' : trial.price.toFixed(2) }}
          </td>
        </tr>
        <tr v-if="trials.some((trial) => trial.problem)">
          <th scope="row">cannot be made</th>
          <td v-for="(trial, i) in trials" :key="i" class="words">
            <ProblemNote v-if="trial.problem" :problem="trial.problem" />
          </td>
        </tr>
        <tr>
          <td />
          <td v-for="(trial, i) in trials" :key="i" class="words">
            <template v-if="i">
              <button v-if="!trial.problem" class="plain small" @click="adopt(i - 1)">Use this</button>
              <button v-if="!trial.problem" class="plain small" @click="saveVariant(i - 1)">
                Save as variant
              </button>
              <button class="link small" @click="drop(i - 1)">Remove</button>
            </template>
          </td>
        </tr>
      </tbody>
    </table>
    <details v-if="trials.length > 1 && rows.parts.length" class="small">
      <summary>{{ rows.parts.length }} sizes of parts change</summary>
      <table>
        <colgroup>
          <col style="width: 128px" />
        </colgroup>
        <tbody class="figure">
          <tr v-for="row in rows.parts" :key="row.key">
            <th scope="row">{{ row.title }}</th>
            <td v-for="(trial, i) in trials" :key="i" :class="{ changed: isChanged(row, trial) }">
              {{ after(row, trial) }}
            </td>
          </tr>
        </tbody>
      </table>
    </details>
    <p v-if="trials.length < 2" class="small second">
      Every size, slot and path is computed anew for what you put beside this job’s basis; nothing is kept
      until you use it.
    </p>
  </section>
</template>

<style scoped>
.tries {
  grid-column: 1 / -1;
  padding: 14px 16px;
  background: var(--panel);
  border: 1px solid var(--line);
}
header {
  display: flex;
  align-items: center;
  gap: 14px;
  margin-bottom: 6px;
}
h2 {
  font-size: 15px;
  font-weight: 600;
}
header select {
  width: auto;
}
table {
  width: 100%;
  table-layout: fixed;
  border-collapse: collapse;
}
td {
  overflow-wrap: break-word;
}
.words button {
  white-space: nowrap;
}
th,
td {
  padding: 3px 8px;
  text-align: right;
  vertical-align: baseline;
  border-top: 1px solid var(--line);
}
thead th {
  border: 0;
  font-weight: 600;
}
thead td {
  border: 0;
}
tbody th {
  padding-left: 0;
  text-align: left;
  font: inherit;
  font-family: var(--words);
  color: var(--second);
}
thead th span,
.words span {
  display: block;
  font-family: var(--words);
  font-weight: 400;
}
.changed {
  box-shadow: inset 0 -2px var(--ochre);
}
.problem {
  text-align: left;
}
.bad {
  color: var(--bad);
}
summary {
  cursor: pointer;
}
</style>
