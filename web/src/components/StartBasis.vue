<script setup lang="ts">
import { computed, ref } from 'vue'

import type { Draft, StockIn } from '../api/client'
import { useSay } from '../composables/useSay'
import ChoiceWord from '../kit/ChoiceWord.vue'
import type { Option } from '../kit/options'
import { useWorkshop } from '../stores/workshop'
import DotStrip from './DotStrip.vue'
import NewStock from './NewStock.vue'

/** What a new job is cut from, on what, and how tight: a sentence with choices in it. */
const props = defineProps<{ stock: number; machine: number; fit: string; draft: Draft | null }>()
const emit = defineEmits<{ stock: [id: number]; machine: [id: number]; fit: [word: string] }>()
const say = useSay()
const workshop = useWorkshop()
const adding = ref(false)

const board = computed(() => workshop.boards?.find(({ id }) => id === props.stock) ?? null)
const tool = computed(() => workshop.machines?.find(({ id }) => id === props.machine) ?? null)
const FITS: Option[] = [
  { value: 'free', label: 'free', detail: 'falls in by itself' },
  { value: 'slide', label: 'sliding', detail: 'moves by hand' },
  { value: 'snug', label: 'snug', detail: 'holds without glue' },
  { value: 'press', label: 'pressed', detail: 'wants a mallet' },
]

async function add(stock: StockIn): Promise<void> {
  const added = await workshop.addBoard(stock)
  adding.value = false
  emit('stock', added.id)
}
</script>

<template>
  <div class="basis">
    <div>
      <p class="sentence">
        Cut from
        <ChoiceWord
          label="Board"
          :options="workshop.boardOptions"
          :model-value="stock"
          @update:model-value="emit('stock', $event)"
        /><template v-if="board"
          >, <b class="figure">{{ say.length(board.thickness) }}</b> {{ say.unit }} as measured{{ ' '
          }}<template v-if="board.document.measured">
            {{ say.date(board.document.measured) }}</template
          ></template
        >, on the
        <ChoiceWord
          label="Machine"
          :options="workshop.machineOptions"
          :model-value="machine"
          @update:model-value="emit('machine', $event)"
        />,
        <ChoiceWord
          label="Fit"
          :options="FITS"
          :model-value="fit || draft?.fit || 'snug'"
          @update:model-value="emit('fit', $event)"
        />.
      </p>
      <p class="small second">
        <template v-if="draft">
          kerf <span class="figure">{{ say.short(draft.slot - draft.slot_drawn) }}</span> {{ say.unit }}
          <span v-for="doubt in draft.doubts" :key="doubt" class="ochre">· {{ say.sentence(doubt) }} </span>
          ·
        </template>
        <ElButton link type="primary" @click="adding = true">My board is not here: measure it</ElButton>
      </p>
    </div>
    <div v-if="board" class="readings small second">
      <span class="figure">{{ say.length(board.readings.thin) }}</span>
      <DotStrip
        :readings="board.readings.values"
        :mean="board.thickness"
        :width="130"
        :outliers="board.readings.outliers"
      />
      <span class="figure">{{ say.length(board.readings.thick) }}</span>
      <span class="many"
        >{{ board.readings.values.length }} reading{{ board.readings.values.length === 1 ? '' : 's' }}</span
      >
    </div>
    <p v-if="draft" class="slot">
      <span class="small">A slot for this board</span>
      <span
        ><b class="figure">{{ say.length(draft.slot) }}</b> cut path
        <span class="figure">{{ say.length(draft.slot_drawn) }}</span></span
      >
    </p>
    <p v-if="workshop.machines && !tool" class="small ochre">
      There is no machine yet: add one at <RouterLink :to="{ name: 'machines' }">Machines</RouterLink>.
    </p>
    <NewStock v-if="adding" :save="add" @close="adding = false" />
  </div>
</template>

<style scoped>
.basis {
  display: flex;
  flex-wrap: wrap;
  align-items: stretch;
  justify-content: space-between;
  gap: 6px 20px;
  padding-left: 24px;
  background: var(--panel);
  border-bottom: 1px solid var(--line);
}
.basis > :first-child {
  flex: 1 1 28rem;
  padding: 8px 0;
}
.sentence {
  font-size: 1.3rem;
  line-height: 1.6;
}
.basis > :last-child:not(.slot) {
  margin-right: 24px;
}
.readings {
  display: grid;
  grid-template-columns: auto auto auto;
  align-content: center;
  align-items: center;
  gap: 0 8px;
}
@media (max-width: 860px) {
  .basis > :first-child {
    flex-basis: 100%;
    padding-right: 16px;
  }
}
.many {
  grid-column: 1 / -1;
  text-align: center;
}
.slot {
  display: grid;
  align-content: center;
  padding: 8px 22px;
  background: var(--deep-wash);
  border-left: 3px solid var(--deep);
}
.slot b {
  font-size: 1.35rem;
  color: var(--deep);
}
</style>
