<script setup lang="ts">
import { computed, ref, shallowRef, watch } from 'vue'

import { api, type CutSetting, type Machine, type Operation } from '../api/client'
import { useProblem } from '../composables/useProblem'
import { useSay } from '../composables/useSay'
import ChoiceField from '../kit/ChoiceField.vue'
import { notice } from '../kit/notice'
import { optionsOf } from '../kit/options'
import { useChoices } from '../stores/choices'
import { useWorkshop } from '../stores/workshop'
import NewSetting from './NewSetting.vue'
import ProblemNote from './ProblemNote.vue'

/** What a machine was set to, by day and board, with how it came out; for one board, the most telling first, with hints. */
const props = defineProps<{ machine: Machine }>()
const say = useSay()
const choices = useChoices()
const workshop = useWorkshop()
const board = ref(0)
const operation = ref<Operation>('cut')
const rows = shallowRef<CutSetting[] | null>(null)
const { problem, tell } = useProblem()
/** A row to begin with, or nothing yet; null while nobody adds one. */
const draft = shallowRef<Partial<CutSetting> | null>(null)

const stock = computed(() => workshop.boards?.find(({ id }) => id === board.value) ?? null)
const boards = computed(() => [{ value: 0, label: 'Every board' }, ...workshop.boardOptions])

const load = () =>
  tell(async () => {
    rows.value = await api.settings(props.machine.id, board.value || undefined, operation.value)
  })
watch([() => props.machine.id, board, operation], load, { immediate: true })
watch([() => props.machine.id, board], () => (draft.value = null))

async function added(): Promise<void> {
  draft.value = null
  await load()
}

const remove = (row: CutSetting) =>
  tell(async () => {
    const { id } = props.machine
    await api.removeSetting(id, row.id)
    await load()
    notice(`The setting of ${say.date(row.date)} is removed.`, () => {
      void tell(async () => {
        await api.addSetting(id, row)
        await load()
      })
    })
  })
</script>

<template>
  <section>
    <header>
      <h2>Settings log</h2>
      <ChoiceField v-model="board" label="Board" hide-label :options="boards" />
      <ChoiceField
        v-if="board"
        label="Operation"
        hide-label
        :options="optionsOf(choices.operations)"
        :model-value="operation"
        @update:model-value="operation = $event as Operation"
      />
      <ElButton v-if="board && !draft" @click="draft = {}">Add a setting</ElButton>
    </header>
    <NewSetting
      v-if="draft && stock"
      :machine="machine"
      :stock="stock"
      :operation="operation"
      :start="draft"
      @added="added"
      @cancel="draft = null"
    />
    <ProblemNote v-if="problem" :problem="problem" />
    <ul>
      <li v-for="row in rows ?? []" :key="row.id">
        <span class="small second"
          >{{ say.date(row.date) }}<template v-if="row.by">, {{ row.by }}</template></span
        >
        <span>
          {{ row.stock }}
          <span class="figure">{{ say.length(row.thickness) }}</span> &ensp;<span class="small second">{{
            choices.operations[row.operation]
          }}</span>
        </span>
        <span class="figure">{{ say.sentence(row.said) }}</span>
        <span :class="{ ochre: row.result !== 'clean' }">{{ row.result }}</span>
        <span class="acts">
          <ElButton v-if="board" link size="small" @click="draft = row">Start from this</ElButton>
          <ElButton
            link
            size="small"
            :aria-label="`Remove the setting of ${say.date(row.date)}`"
            @click="remove(row)"
            >Remove</ElButton
          >
        </span>
        <span v-if="row.note" class="small second all">{{ row.note }}</span>
        <span v-for="hint in row.hints" :key="hint" class="small all">
          <ElTag size="small">Hint</ElTag> {{ say.sentence(hint) }}
        </span>
      </li>
    </ul>
    <p v-if="rows?.length === 0" class="second small">
      No settings{{ board ? ' for such a board' : '' }} yet. Choose a board, try it on a scrap, and add what
      worked.
    </p>
  </section>
</template>

<style scoped>
header {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px 14px;
}
header h2 {
  margin: 0;
}
header .field {
  width: 15rem;
}
ul {
  margin-top: 8px;
}
li {
  display: grid;
  grid-template-columns: 8.5rem minmax(9rem, 1fr) minmax(10rem, 1.2fr) 6rem auto;
  gap: 0 10px;
  align-items: baseline;
  padding: 4px 0;
  border-top: 1px solid var(--line);
}
.all {
  grid-column: 2 / -1;
}
@media (max-width: 1180px) {
  li {
    grid-template-columns: 1fr 1fr;
  }
  .all {
    grid-column: 1 / -1;
  }
}
</style>
