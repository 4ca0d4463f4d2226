<script setup lang="ts">
import { useStorage } from '@vueuse/core'
import { computed, onMounted, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'

import { api, type Way } from '../api/client'
import EntryList from '../components/EntryList.vue'
import PieceDrawing from '../components/PieceDrawing.vue'
import PieceResult from '../components/PieceResult.vue'
import ProblemNote from '../components/ProblemNote.vue'
import PieceReadings from '../components/PieceReadings.vue'
import TextField from '../kit/TextField.vue'
import WorkshopLayout from '../components/WorkshopLayout.vue'
import { useTestPiece } from '../composables/useTestPiece'
import ChoiceField from '../kit/ChoiceField.vue'
import PlainField from '../kit/PlainField.vue'
import { useChoices } from '../stores/choices'
import { useWorkshop } from '../stores/workshop'
import { useSay } from '../composables/useSay'

/** The kerf notebook: a test piece for a board and a machine, what it shows, and every entry so far. */
const say = useSay()
const route = useRoute()
const router = useRouter()
const workshop = useWorkshop()
const choices = useChoices()
const seed = ref('1')
const last = useStorage('notebook', { stock: 0, machine: 0 })

const WAYS: Record<Way, [string, string]> = {
  slats: ['Row of slats', 'the kerf, most exactly'],
  plug: ['Plug and hole', 'the kerf, with one cut'],
  comb: ['Fit comb', 'how tight each fit is'],
}

/** Board, machine and way are the address's; what it does not name is what was looked at last, else what has an entry already. */
const asked = computed(() => {
  const measured = workshop.machines?.find(({ document }) => document.found)
  const stock = chosen('stock', workshop.boards, Number(measured?.document.found?.stock_id))
  const machine = chosen('machine', workshop.machines, measured?.id)
  const way = String(route.query['way'] ?? 'slats') as Way
  return stock && machine ? { stock, machine, way: way in WAYS ? way : 'slats' } : null
})

function chosen(
  name: 'stock' | 'machine',
  known: readonly { id: number }[] | null,
  measured: number | undefined,
): number | null {
  const wanted = [route.query[name], last.value[name], measured].map(Number)
  return (wanted.find((id) => known?.some((one) => one.id === id)) || known?.[0]?.id) ?? null
}

function choose(changes: Record<string, string | number>): void {
  void router.replace({ query: { ...asked.value, ...route.query, ...changes } })
}

watch(asked, (now) => {
  if (!now) return
  // Only what is another: what is asked follows from it.
  if (last.value.stock !== now.stock) last.value.stock = now.stock
  if (last.value.machine !== now.machine) last.value.machine = now.machine
})

const test = useTestPiece(() => asked.value)
const { draft, piece, read, truth, entries, said, elsewhere } = test

/** What the machine was last set to for this board. */
const lastSet = ref('')
watch([() => asked.value?.machine, () => asked.value?.stock], async ([machine, stock]) => {
  const known = machine && stock ? await api.settings(machine, stock, 'cut') : []
  lastSet.value = known.find((one) => one.stock === stockName(stock))?.said ?? ''
})
const stockName = (id: number | undefined) => workshop.boards?.find((one) => one.id === id)?.document.name

onMounted(() => Promise.all([workshop.load(), choices.load()]))

/** What was typed, in the unit shown now; else the piece's own. */
function sizeText({ name, kind, text }: { name: string; kind: string; text: string }): string {
  const typed = draft.value.sizes[name]
  if (typed) return say.edit(typed.text, typed.unit)
  return kind === 'length' ? say.short(Number(text)) : text
}
</script>

<template>
  <WorkshopLayout title="Kerf notebook" :about="piece?.about ?? ''" :loading="!workshop.boards">
    <template #list>
      <div class="chosen">
        <ChoiceField
          label="Board"
          :options="workshop.boardOptions"
          :model-value="asked?.stock ?? null"
          @update:model-value="choose({ stock: $event })"
        />
        <ChoiceField
          label="Machine"
          :options="workshop.machineOptions"
          :model-value="asked?.machine ?? null"
          @update:model-value="choose({ machine: $event })"
        />
      </div>
      <ElButton
        v-for="([title, what], name) in WAYS"
        :key="name"
        text
        class="row way"
        :aria-pressed="asked?.way === name"
        @click="choose({ way: name })"
      >
        <b>{{ title }}</b>
        <span class="small second">{{ what }}</span>
      </ElButton>
    </template>

    <p v-if="workshop.boards && workshop.machines && !asked" class="second">
      A test piece needs a board and a machine: add them to the
      <RouterLink :to="{ name: 'rack' }">stock rack</RouterLink> and the
      <RouterLink :to="{ name: 'machines' }">machines</RouterLink> first.
    </p>
    <template v-if="piece && asked">
      <PieceDrawing class="piece" :piece="piece" />
      <div class="sizes">
        <TextField
          v-for="setting in piece.settings"
          :key="`${asked.way}-${setting.name}`"
          :field="setting.name"
          :label="setting.title"
          :unit="setting.kind === 'length' ? say.unit : ''"
          :text="sizeText(setting)"
          :problem="test.problemAt(setting.name)"
          @commit="test.resize(setting.name, $event)"
        />
      </div>
      <div class="acts hand">
        <span class="small second">Takes {{ say.area(piece.area) }} of the board</span>
        <ElButton
          v-for="{ format, title } in choices.formats"
          :key="format"
          size="small"
          @click="test.download(format)"
        >
          {{ title }}
        </ElButton>
        <form class="acts" @submit.prevent="test.practise(Number(seed) || 0)">
          <PlainField v-model="seed" class="seed" label="Or cut it on practice machine" field="seed" />
          <ElButton native-type="submit">Practise</ElButton>
        </form>
      </div>
      <ol class="steps">
        <li v-for="step in piece.instructions" :key="step">{{ say.sentence(step) }}</li>
      </ol>
      <p v-if="piece.kerf_note" class="note small" :class="piece.kerf_known ? 'second' : 'ochre'">
        {{ say.sentence(piece.kerf_note) }}
      </p>
      <p v-if="draft.practice !== null" class="practised small" role="status">
        Simulated caliper readings from practice machine {{ draft.practice.seed
        }}<template v-if="draft.practice.kerf !== null"
          >, with a comb cut for the kerf that its slats showed,
          <span class="figure">{{ say.length(draft.practice.kerf, 4) }}</span> {{ say.unit }}</template
        >.
      </p>
      <PieceReadings :test="test" :asked="asked" />
    </template>
    <ProblemNote v-if="elsewhere" :problem="elsewhere" />

    <template #ledger>
      <PieceResult
        v-if="read"
        v-model:note="draft.note"
        :read="read"
        :feels="choices.choices?.feels ?? []"
        :practice="draft.practice?.seed ?? null"
        :truth="truth"
        :last-set="lastSet"
        @keep="test.keep"
        @reveal="test.reveal"
        @clear="test.clear"
      />
      <p v-if="said" class="practised small" role="status">{{ said }}</p>
      <h2>Entries</h2>
      <EntryList :entries="entries" @strike="test.strike" />
    </template>
  </WorkshopLayout>
</template>

<style scoped>
.chosen {
  display: grid;
  gap: 8px;
  padding: 0 16px 14px;
}
.el-button.row.way {
  padding: 8px 16px;
}
.el-button.row.way :deep(> span) {
  justify-content: start;
  display: grid;
  gap: 1px;
}
.piece {
  height: 16rem;
  border: 1px solid var(--line);
}
.sizes {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(10rem, 1fr));
  align-items: end;
  gap: 8px 12px;
  margin: 12px 0;
}
.hand form {
  margin-left: auto;
}
.seed {
  display: flex;
  align-items: center;
  gap: 6px;
}
.seed :deep(.el-input) {
  width: 4.5rem;
}
.steps {
  margin: 12px 0;
  padding-left: 20px;
  list-style: decimal;
}
.note {
  margin: -6px 0 12px 20px;
}
.practised {
  margin-bottom: 8px;
  padding: 4px 10px;
  background: var(--deep-wash);
  color: var(--deep);
}
</style>
