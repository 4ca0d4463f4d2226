<script setup lang="ts">
import { computed, defineAsyncComponent, onMounted, ref } from 'vue'

import { api, type StockIn } from '../api/client'
import { useNews } from '../composables/useNews'
import { useSay } from '../composables/useSay'
import ChoiceField from '../kit/ChoiceField.vue'
import { useJob } from '../stores/job'
import { useWorkshop } from '../stores/workshop'
import NewsNote from './NewsNote.vue'
import ReadingsEditor from './ReadingsEditor.vue'

const NewStock = defineAsyncComponent(() => import('./NewStock.vue'))

/** Which board, and how thick it really is. The job keeps its own readings; it follows the rack only when asked to. */
const job = useJob()
const say = useSay()
const workshop = useWorkshop()
const kept = ref('')
const adding = ref(false)

onMounted(workshop.loadBoards)

const basis = computed(() => job.basis!)
const stock = computed(() => basis.value.stock)
const onRack = computed(
  () =>
    workshop.boards?.find(({ id }) => String(id) === stock.value.id) ??
    workshop.boards?.find(({ document }) => !stock.value.id && document.name === stock.value.name) ??
    null,
)

const news = useNews('board')

async function add(body: StockIn): Promise<void> {
  const added = await workshop.addBoard(body)
  adding.value = false
  await job.putBasis('stock', added.id)
}

/** A new measurement on the rack, which the job then follows. */
async function keepOnRack(): Promise<void> {
  const { id } = onRack.value!
  await api.changeStock(id, { readings: stock.value.readings })
  await workshop.loadBoards()
  if (await job.putBasis('stock', id)) kept.value = 'Saved on the rack.'
}

/** A board that is not on the rack stays the one that is chosen. */
const boards = computed(() =>
  onRack.value
    ? workshop.boardOptions
    : [{ value: 0, label: stock.value.name, detail: 'Not on the rack' }, ...workshop.boardOptions],
)
const sizes = computed(() => [
  { width: stock.value.sheet_width, height: stock.value.sheet_height, count: stock.value.sheets },
  ...stock.value.other_sheets,
])
</script>

<template>
  <div>
    <ChoiceField
      label="Board from the stock rack"
      :options="boards"
      :model-value="onRack?.id ?? 0"
      @update:model-value="job.putBasis('stock', $event)"
    />
    <p class="links">
      <ElButton link size="small" @click="adding = true">Add a board</ElButton>
      <RouterLink v-if="onRack" class="small go" :to="{ name: 'rack', params: { id: onRack.id } }"
        >Open in rack</RouterLink
      >
    </p>
    <NewStock v-if="adding" :save="add" @close="adding = false" />
    <ChoiceField
      v-if="sizes.length > 1"
      label="Cut from a sheet of"
      :field="job.basisPath('sheet')"
      :options="
        sizes.map(({ width, height, count }, i) => ({
          value: String(i),
          label: say.size(width, height),
          detail: count === null ? 'As many as it takes' : `${count} at hand`,
        }))
      "
      model-value="0"
      @update:model-value="job.putBasis('sheet', $event)"
    />
    <p class="second head">
      Readings by caliper, {{ say.unit }}
      <span class="small">{{
        stock.measured ? `· measured ${say.date(stock.measured)}` : '· measured for this job'
      }}</span>
    </p>
    <NewsNote v-if="news" :news="news">
      <ElButton link v-if="onRack && !stock.measured" @click="keepOnRack"> Save these on the rack </ElButton>
    </NewsNote>
    <p v-else-if="kept" class="small second" role="status">{{ kept }}</p>
    <ReadingsEditor />
    <p class="small second">
      Mean <b class="figure">{{ say.length(basis.thickness, 3) }}</b> · thin
      <span class="figure">{{ say.length(basis.thin) }}</span> · thick
      <span class="figure">{{ say.length(basis.thick) }}</span>
    </p>
    <p v-for="warning in basis.warnings" :key="warning" class="small ochre">
      {{ say.sentence(warning) }}
    </p>
  </div>
</template>

<style scoped>
.head {
  margin: 10px 0 2px;
}
.links {
  display: flex;
  justify-content: space-between;
  align-items: center;
}
</style>
