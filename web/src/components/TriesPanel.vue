<script setup lang="ts">
import { computed, onMounted, ref, shallowRef, watch } from 'vue'
import { useRouter } from 'vue-router'

import { api, type Swap, type Trial } from '../api/client'
import { useProblem } from '../composables/useProblem'
import ChoiceField from '../kit/ChoiceField.vue'
import type { Option } from '../kit/options'
import { useJob } from '../stores/job'
import { useWorkshop } from '../stores/workshop'
import ProblemNote from './ProblemNote.vue'
import TriesTable from './TriesTable.vue'

/** This job on other boards and machines, side by side: what changes, what fails, what it takes. One can be used, or saved as a
 * variant. */
const job = useJob()
const router = useRouter()
const workshop = useWorkshop()
const chosen = ref<Swap[]>([])
const trials = shallowRef<Trial[]>([])
const { problem, tell } = useProblem()
const busy = ref(false)

onMounted(workshop.load)

const isChosen = (name: 'stock' | 'machine', id: number) =>
  chosen.value.some((swap) => swap[name] === id && swap.board === job.board!.id)
/** "stock 3" or "machine 2". */
const offers = computed<Option[]>(() => [
  ...workshop.boardOptions.map((one) => ({
    ...one, value: `stock ${one.value}`, group: 'Boards', disabled: isChosen('stock', one.value),
  })),
  ...workshop.machineOptions.map((one) => ({
    ...one, value: `machine ${one.value}`, group: 'Machines', disabled: isChosen('machine', one.value),
  })),
]) // prettier-ignore

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

function add(offer: string): void {
  const [name, id] = offer.split(' ')
  chosen.value = [...chosen.value, { board: job.board!.id, [name!]: Number(id) }]
}

const drop = (index: number) => (chosen.value = chosen.value.filter((_, i) => i !== index))

async function use(index: number): Promise<void> {
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
</script>

<template>
  <section class="tries card">
    <header>
      <h2>Try another basis</h2>
      <ChoiceField
        class="offers"
        label="Compare with"
        hide-label
        placeholder="Compare with a board or a machine"
        :options="offers"
        :model-value="null"
        @update:model-value="add"
      />
      <span v-if="busy" class="small second" role="status">Computing</span>
    </header>
    <ProblemNote v-if="problem" :problem="problem" />
    <TriesTable v-if="trials.length > 1" :trials="trials" @use="use" @save="saveVariant" @remove="drop" />
    <p v-else class="small second">
      Every size, slot and path is computed for what you compare with; nothing is saved until you use it.
    </p>
  </section>
</template>

<style scoped>
.tries {
  grid-column: 1 / -1;
}
header {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px 14px;
  margin-bottom: 6px;
}
.offers {
  width: 20rem;
}
</style>
