<script setup lang="ts">
import { computed, defineAsyncComponent, onMounted, ref, shallowRef, watch } from 'vue'

import { api, type CutSetting, type Entry, type MachineIn, type Way } from '../api/client'
import { useNews } from '../composables/useNews'
import { WAY_TITLES } from '../rack'
import { useSay } from '../composables/useSay'
import ChoiceField from '../kit/ChoiceField.vue'
import { useJob } from '../stores/job'
import { useWorkshop } from '../stores/workshop'
import LengthField from './LengthField.vue'
import NewsNote from './NewsNote.vue'

const NewMachine = defineAsyncComponent(() => import('./NewMachine.vue'))

/** Which machine, and how much its beam or tool takes away: typed, or found and offered by the notebook. */
const job = useJob()
const say = useSay()
const workshop = useWorkshop()
const entries = shallowRef<Entry[]>([])
const adding = ref(false)

onMounted(workshop.loadMachines)

const basis = computed(() => job.basis!)
const machine = computed(() => basis.value.machine)
const known = computed(
  () =>
    workshop.machines?.find(({ id }) => String(id) === machine.value.id) ??
    workshop.machines?.find(({ document }) => !machine.value.id && document.name === machine.value.name),
)

watch(
  [() => machine.value.id, () => basis.value.stock.id],
  async ([on, of]) => (entries.value = on && of ? await api.notebook(Number(on), Number(of)) : []),
  { immediate: true },
)

const news = useNews('machine')
const found = useNews('notebook')

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
  const added = await workshop.addMachine(body)
  adding.value = false
  await job.putBasis('machine', added.id)
}

/** A machine that is not the workshop's stays the one that is chosen. */
const machines = computed(() =>
  known.value
    ? workshop.machineOptions
    : [{ value: 0, label: machine.value.name, detail: 'Not in the workshop' }, ...workshop.machineOptions],
)
const tools = computed(() => [
  { value: '', label: 'None of them' },
  ...machine.value.tools.map(({ name, diameter }) => ({
    value: name,
    label: name,
    detail: `${say.short(diameter)} ${say.unit}`,
  })),
])
</script>

<template>
  <ChoiceField
    label="Machine"
    :options="machines"
    :model-value="known?.id ?? 0"
    @update:model-value="job.putBasis('machine', $event)"
  />
  <p class="links">
    <ElButton link size="small" @click="adding = true">Add a machine</ElButton>
    <RouterLink v-if="known" class="small go" :to="{ name: 'machines', params: { id: known.id } }"
      >Open the machine</RouterLink
    >
  </p>
  <NewsNote v-if="news" :news="news" />
  <NewsNote v-if="found" :news="found" />
  <NewMachine v-if="adding" :save="add" @close="adding = false" />
  <ChoiceField
    v-if="machine.tools.length"
    label="In the spindle"
    :field="job.basisPath('tool')"
    :options="tools"
    :model-value="machine.tool"
    @update:model-value="job.putBasis('tool', $event)"
  />
  <LengthField
    class="kerf"
    :field="job.basisPath('kerf')"
    label="Kerf"
    :text="say.short(machine.kerf)"
    @commit="job.putBasis('kerf', $event)"
  />
  <p v-if="machine.found" class="small second">
    {{ say.within(machine.found.within) }} {{ say.unit }} (95 %), by a
    {{ WAY_TITLES[machine.found.way as Way] }} on {{ machine.found.stock }}
    {{ say.length(machine.found.thickness) }},
    {{ say.date(machine.found.date) }}
  </p>
  <p v-else class="small second">Typed in; uncertainty unknown. The kerf moves the path, never the part.</p>
  <p v-for="doubt in basis.doubts" :key="doubt" class="small doubt">{{ say.sentence(doubt) }}</p>
  <ul v-if="offers.length" class="offers small">
    <li v-for="entry in offers" :key="entry.id">
      <template v-if="entry.kerf !== null">
        The notebook has <b class="figure">{{ say.length(entry.kerf, 3) }}</b>
        {{ say.within(entry.within) }}
      </template>
      <template v-else-if="entry.fits">
        The notebook has a fit comb: snug at
        <b class="figure">{{ say.length(entry.fits.snug, 3) }}</b>
      </template>
      of {{ say.date(entry.made) }}
      <span v-for="warning in entry.warnings" :key="warning" class="ochre"
        >{{ say.sentence(warning) }}.
      </span>
      <ElButton link @click="job.putBasis('entry', entry.id)">
        {{ entry.warnings.length ? 'Use it anyway' : 'Use it' }}
      </ElButton>
    </li>
  </ul>
  <p v-if="lastUsed" class="small used second">
    Last cut {{ lastUsed.stock }} {{ say.length(lastUsed.thickness) }} at
    <b class="figure">{{ say.sentence(lastUsed.said) }}</b>, {{ lastUsed.result }},
    {{ say.date(lastUsed.date) }}.
    <template v-for="hint in lastUsed.hints.slice(0, 1)" :key="hint">{{ say.sentence(hint) }}</template>
  </p>
  <RouterLink
    v-if="known"
    class="small find"
    :to="{ name: 'notebook', query: { machine: known.id, stock: basis.stock.id } }"
    >Find the kerf for this board</RouterLink
  >
</template>

<style scoped>
.kerf {
  margin: 10px 0 4px;
}
.links {
  display: flex;
  justify-content: space-between;
  align-items: center;
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
