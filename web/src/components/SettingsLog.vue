<script setup lang="ts">
import { computed, reactive, ref, shallowRef, watch } from 'vue'

import { api, type Choices, type CutSetting, type Machine, type Operation, type Stock } from '../api/client'
import { useProblem } from '../composables/useProblem'
import { dateText } from '../rack'
import { useSettings } from '../stores/settings'
import { inUnit, lengthText, shortText } from '../units'
import ProblemNote from './ProblemNote.vue'

/** What a machine was set to, by day and board, with how it came out; for one board, the most telling first, with hints. */
const props = defineProps<{ machine: Machine; rack: readonly Stock[]; choices: Choices | null }>()
const settings = useSettings()
const board = ref<number | ''>('')
const operation = ref<Operation>('cut')
const rows = shallowRef<CutSetting[]>([])
const { problem, tell } = useProblem()
const writing = ref(false)
const removed = shallowRef<CutSetting | null>(null)
const laser = computed(() => props.machine.document.kind === 'laser')
const numbers = computed<[string, string][]>(() =>
  laser.value
    ? [['power', 'power, %'], ['speed', 'speed, mm/s'], ['passes', 'passes']]
    : [['spindle', 'spindle, turns/min'], ['feed', 'feed, mm/min'], ['depth', 'depth of a pass, mm'], ['passes', 'passes'], ['ramp', 'ramp, °']],
) // prettier-ignore
const draft = reactive<Record<string, string>>({ result: 'clean', note: '' })

async function load(): Promise<void> {
  rows.value = await api.settings(props.machine.id, board.value || undefined, operation.value)
}
watch([() => props.machine.id, board, operation], load, { immediate: true })
watch(
  () => props.machine.id,
  () => ((removed.value = null), (writing.value = false)),
)

async function keep(): Promise<void> {
  const stock = props.rack.find(({ id }) => id === board.value)
  if (!stock) return
  const typed = Object.fromEntries(numbers.value.map(([name]) => [name, draft[name]?.trim() || null]))
  await tell(async () => {
    await api.addSetting(props.machine.id, {
      stock: stock.document.name,
      kind: stock.document.kind,
      thickness: stock.thickness,
      operation: operation.value,
      result: draft['result']!,
      note: draft['note']!,
      tool: laser.value ? '' : props.machine.document.tool,
      ...typed,
    })
    writing.value = false
    draft['note'] = ''
    await load()
  })
}

async function remove(row: CutSetting): Promise<void> {
  await api.removeSetting(props.machine.id, row.id)
  removed.value = row
  await load()
}

async function bringBack(): Promise<void> {
  await api.addSetting(props.machine.id, removed.value!)
  removed.value = null
  await load()
}

/** Another row's numbers as a beginning. */
function beginWith(row: CutSetting): void {
  for (const [name] of numbers.value) draft[name] = String(row[name as 'speed'] ?? '')
  writing.value = true
}
</script>

<template>
  <section>
    <header>
      <h2>What it was set to</h2>
      <label>
        for
        <select v-model="board" class="boxed">
          <option value="">every board</option>
          <option v-for="one in rack" :key="one.id" :value="one.id">
            {{ one.document.name }}, {{ shortText(one.thickness, settings.unit) }}
          </option>
        </select>
      </label>
      <label v-if="board">
        to
        <select v-model="operation" class="boxed">
          <option v-for="(title, name) in choices?.operations" :key="name" :value="name">{{ title }}</option>
        </select>
      </label>
      <button v-if="board && !writing" class="plain" @click="writing = true">write down a setting</button>
    </header>
    <form v-if="writing && board" @submit.prevent="keep">
      <label v-for="[name, label] in numbers" :key="name">
        {{ label }}
        <input
          v-model="draft[name]"
          class="boxed figure"
          :data-field="name"
          :aria-invalid="problem?.field === name ? 'true' : undefined"
        />
      </label>
      <label>
        came out
        <select v-model="draft['result']" class="boxed">
          <option v-for="result in choices?.results" :key="result">{{ result }}</option>
        </select>
      </label>
      <label class="note">note <input v-model="draft['note']" class="boxed" /></label>
      <button class="strong">Keep it</button>
      <button type="button" class="link" @click="writing = false">leave it</button>
      <ProblemNote v-if="problem" class="all" :problem="problem" />
    </form>
    <p v-if="removed" class="removed small" role="status">
      The setting of {{ dateText(removed.date) }} is taken away.
      <button class="link" @click="bringBack">bring it back</button>
    </p>
    <ul>
      <li v-for="row in rows" :key="row.id">
        <span class="small second"
          >{{ dateText(row.date) }}<template v-if="row.by">, {{ row.by }}</template></span
        >
        <span>
          {{ row.stock }}
          <span class="figure">{{ lengthText(row.thickness, settings.unit) }}</span> &ensp;<span
            class="small second"
            >{{ choices?.operations[row.operation] }}</span
          >
        </span>
        <span class="figure">{{ inUnit(row.said, settings.unit) }}</span>
        <span :class="{ ochre: row.result !== 'clean' }">{{ row.result }}</span>
        <span class="acts">
          <button v-if="board" class="link small" @click="beginWith(row)">begin with it</button>
          <button class="link small" :aria-label="`remove the setting of ${row.date}`" @click="remove(row)">
            remove
          </button>
        </span>
        <span v-if="row.note" class="small second all">{{ row.note }}</span>
        <span v-for="hint in row.hints" :key="hint" class="small hint all">
          <b>hint</b> {{ inUnit(hint, settings.unit) }}
        </span>
      </li>
    </ul>
    <p v-if="!rows.length" class="second small">
      Nothing is written down{{ board ? ' for such a board' : ' yet' }}. Choose a board, try it on a scrap,
      and write down what worked.
    </p>
  </section>
</template>

<style scoped>
header {
  display: flex;
  align-items: center;
  gap: 14px;
}
header h2 {
  margin: 0;
}
header label {
  display: flex;
  align-items: center;
  gap: 6px;
  color: var(--second);
}
header select {
  width: auto;
}
form {
  display: flex;
  flex-wrap: wrap;
  align-items: end;
  gap: 8px 10px;
  margin: 10px 0;
  padding: 10px 14px;
  background: var(--panel);
  border: 1px solid var(--ink);
  border-top: 3px solid var(--deep);
}
form label {
  width: 128px;
  color: var(--second);
}
form .note {
  width: 220px;
}
ul {
  margin-top: 8px;
}
li {
  display: grid;
  grid-template-columns: 120px minmax(140px, 1fr) minmax(160px, 1.2fr) 76px auto;
  gap: 0 10px;
  align-items: baseline;
  padding: 4px 0;
  border-top: 1px solid var(--line);
}
.removed {
  margin-top: 8px;
  padding: 4px 10px;
  background: var(--ochre-wash);
}
.acts {
  white-space: nowrap;
}
.all {
  grid-column: 2 / -1;
  flex-basis: 100%;
}
.hint b {
  padding: 0 5px;
  background: var(--deep-wash);
  color: var(--deep);
  font-weight: 500;
}
</style>
