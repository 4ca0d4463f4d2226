<script setup lang="ts">
import { computed, defineAsyncComponent, onMounted, ref, shallowRef, watch } from 'vue'

import { api, type CutSetting, type Entry, type Machine, type MachineIn, type Way } from '../api/client'
import { useNews } from '../composables/useNews'
import { dateText, WAY_TITLES } from '../rack'
import { useJob } from '../stores/job'
import { useSettings } from '../stores/settings'
import { inUnit, lengthText, shortText, withinText } from '../units'
import LengthField from './LengthField.vue'
import NewsNote from './NewsNote.vue'

const NewMachine = defineAsyncComponent(() => import('./NewMachine.vue'))

/** Which machine, and how much its beam or tool takes away: typed, or found and offered by the notebook. */
const job = useJob()
const settings = useSettings()
const machines = shallowRef<Machine[]>([])
const kinds = shallowRef<string[]>([])
const entries = shallowRef<Entry[]>([])
const adding = ref(false)

onMounted(async () => {
  machines.value = await api.machines()
  kinds.value = (await api.choices()).machine_kinds
})

const basis = computed(() => job.basis!)
const machine = computed(() => basis.value.machine)
const known = computed(
  () =>
    machines.value.find(({ id }) => String(id) === machine.value.id) ??
    machines.value.find(({ document }) => !machine.value.id && document.name === machine.value.name),
)

watch(
  [() => machine.value.id, () => basis.value.stock.id],
  async ([on, of]) => (entries.value = on && of ? await api.notebook(Number(on), Number(of)) : []),
  { immediate: true },
)

const news = useNews('machine')

/** What cut this board before, the most telling first. */
const lastUsed = shallowRef<CutSetting | null>(null)
watch(
  [() => known.value?.id, () => basis.value.stock.id],
  async ([on, of]) => (lastUsed.value = on && of ? ((await api.settings(Number(on), Number(of), 'cut'))[0] ?? null) : null),
  { immediate: true },
) // prettier-ignore

/** Offered: the newest sure one of kerf and comb, and the newest doubtful one where none is sure. */
const offers = computed(() => {
  const valid = entries.value.filter((entry) => entry.valid)
  return [valid.filter(({ kerf }) => kerf !== null), valid.filter(({ fits }) => fits !== null)]
    .map((list) => list.find(({ offered }) => offered) ?? list[0])
    .filter((entry) => entry !== undefined)
    .filter((entry) => !used(entry))
})

function used(entry: Entry): boolean {
  if (entry.fits)
    return basis.value.fits.every(({ name, clearance }) => clearance === entry.fits![name as 'snug'])
  return entry.kerf === machine.value.kerf && machine.value.found !== null
}

async function add(body: MachineIn): Promise<void> {
  const added = await api.addMachine(body)
  adding.value = false
  machines.value = await api.machines()
  await job.putBasis('machine', added.id)
}
</script>

<template>
  <label class="second">
    Machine
    <select
      class="boxed"
      :value="known?.id ?? ''"
      @change="job.putBasis('machine', Number(($event.target as HTMLSelectElement).value))"
    >
      <option v-if="!known" value="" disabled>{{ machine.name }}</option>
      <option v-for="one in machines" :key="one.id" :value="one.id">
        {{ one.document.name }}, {{ shortText(one.document.bed_width, settings.unit) }} ×
        {{ shortText(one.document.bed_height, settings.unit) }} {{ settings.unit }}
      </option>
    </select>
  </label>
  <p class="links">
    <button class="link small" @click="adding = true">Add a machine</button>
    <RouterLink v-if="known" class="small go" :to="{ name: 'machines', params: { id: known.id } }"
      >see the machine</RouterLink
    >
  </p>
  <NewsNote v-if="news" :news="news" />
  <NewMachine v-if="adding" :kinds="kinds" :save="add" @close="adding = false" />
  <label v-if="machine.tools.length" class="second tool">
    In the spindle
    <select
      class="boxed"
      :data-field="job.basisPath('tool')"
      :value="machine.tool"
      @change="job.putBasis('tool', ($event.target as HTMLSelectElement).value)"
    >
      <option value="">none of them</option>
      <option v-for="tool in machine.tools" :key="tool.name">{{ tool.name }}</option>
    </select>
  </label>
  <LengthField
    class="kerf"
    :field="job.basisPath('kerf')"
    :label="`Kerf, in ${settings.unit}`"
    :text="shortText(machine.kerf, settings.unit)"
    @commit="job.putBasis('kerf', $event)"
  />
  <p v-if="machine.found" class="small second">
    {{ withinText(machine.found.within, settings.unit) }}, by a {{ WAY_TITLES[machine.found.way as Way] }} on
    {{ machine.found.stock }} {{ lengthText(machine.found.thickness, settings.unit) }},
    {{ dateText(machine.found.date) }}
  </p>
  <p v-else class="small second">Typed: nobody measured how sure it is. It moves the path, never the part.</p>
  <p v-for="doubt in basis.doubts" :key="doubt" class="small doubt">{{ inUnit(doubt, settings.unit) }}</p>
  <ul v-if="offers.length" class="offers small">
    <li v-for="entry in offers" :key="entry.id">
      <template v-if="entry.kerf !== null">
        The notebook has <b class="figure">{{ lengthText(entry.kerf, settings.unit, 3) }}</b>
        {{ withinText(entry.within, settings.unit) }}
      </template>
      <template v-else-if="entry.fits">
        The notebook has a fit comb: snug at
        <b class="figure">{{ lengthText(entry.fits.snug, settings.unit, 3) }}</b>
      </template>
      of {{ dateText(entry.made) }}
      <span v-for="warning in entry.warnings" :key="warning" class="ochre"
        >{{ inUnit(warning, settings.unit) }}.
      </span>
      <button class="link" @click="job.putBasis('entry', entry.id)">
        {{ entry.warnings.length ? 'use it all the same' : 'use it' }}
      </button>
    </li>
  </ul>
  <p v-if="lastUsed" class="small used second">
    It cut {{ lastUsed.stock }} {{ lengthText(lastUsed.thickness, settings.unit) }} at
    <b class="figure">{{ inUnit(lastUsed.said, settings.unit) }}</b>, {{ lastUsed.result }},
    {{ dateText(lastUsed.date) }}.
    <template v-for="hint in lastUsed.hints.slice(0, 1)" :key="hint">{{
      inUnit(hint, settings.unit)
    }}</template>
  </p>
  <RouterLink
    v-if="known"
    class="small find"
    :to="{ name: 'notebook', query: { machine: known.id, stock: basis.stock.id } }"
    >find the kerf for this board</RouterLink
  >
</template>

<style scoped>
.kerf {
  margin: 10px 0 4px;
}
.tool {
  display: block;
  margin-top: 8px;
}
.links {
  display: flex;
  justify-content: space-between;
}
.go {
  padding: 2px 4px;
}
a {
  color: var(--deep);
}
.doubt,
.offers li {
  margin-top: 6px;
  padding: 4px 8px;
  background: var(--ochre-wash);
}
.used {
  margin-top: 8px;
}
.used b {
  color: var(--ink);
  font-weight: 400;
}
.find {
  display: inline-block;
  margin-top: 8px;
}
</style>
