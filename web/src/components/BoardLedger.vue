<script setup lang="ts">
import { computed, ref, watch } from 'vue'

import type { Choices, Problem, Stock, StockChange } from '../api/client'
import { cornersText, readCorners } from '../rack'
import { useSay } from '../composables/useSay'
import ChoiceField from '../kit/ChoiceField.vue'
import { optionsOf } from '../kit/options'
import { LIMITS, shownLimit, typedLimits, type Limit } from '../limits'
import { useSettings } from '../stores/settings'
import KindLimits from './KindLimits.vue'
import MachineRules from './MachineRules.vue'
import RowsEditor from './RowsEditor.vue'
import TextField from '../kit/TextField.vue'

/** What is written down of a board, each figure edited where it stands. */
const props = defineProps<{
  stock: Stock
  choices: Choices
  change: (changes: StockChange) => Promise<boolean>
  problemAt: (field: string) => Problem | null
}>()
const say = useSay()
const settings = useSettings()
const sizeDraft = ref<Record<string, string> | null>(null)
const cutDraft = ref<Record<string, string> | null>(null)
const short = (mm: number) => say.short(mm)

/** What is left empty is as usual for its kind. */
const limits = computed(() => props.stock.document.limits)
const usual = (name: Limit) => shownLimit(say, name, props.stock.usual[name])
/** A composite is asked what it is made of before it is one. */
const asked = ref(false)
const composite = computed(() => asked.value || props.stock.document.kind === 'composite')
async function changeKind(kind: string): Promise<void> {
  asked.value = kind === 'composite'
  if (!asked.value) await props.change({ kind })
}
/** All of them go together: only one of them was typed just now. */
const changeLimit = (name: Limit, text: string) =>
  props.change({ limits: { ...typedLimits(limits.value), [name]: text.trim() || null } })

watch(
  () => props.stock.id,
  () => {
    sizeDraft.value = cutDraft.value = null
    asked.value = false
  },
)

const sizes = computed(() => {
  const { sheet_width: width, sheet_height: height, sheets: count, other_sheets } = props.stock.document
  return [{ width, height, count }, ...other_sheets].map((one) => ({
    width: short(one.width),
    height: short(one.height),
    count: String(one.count ?? ''),
  }))
})
const offcuts = computed(() =>
  props.stock.document.offcuts.map(({ name, outline }) => ({
    name,
    outline: cornersText(outline, settings.style),
  })),
)

async function changeSizes(rows: Record<string, string>[]): Promise<void> {
  const [first, ...others] = rows.map(({ width, height, count }) => ({
    width: width!,
    height: height!,
    count: count?.trim() || null,
  }))
  if (!first) return
  const { width: sheet_width, height: sheet_height, count: sheets } = first
  if (await props.change({ sheet_width, sheet_height, sheets, other_sheets: others })) sizeDraft.value = null
}

async function changeOffcuts(rows: Record<string, string>[]): Promise<void> {
  const before = props.stock.document.offcuts
  const done = await props.change({
    offcuts: rows.map(({ name, outline }) => ({
      name: name!,
      outline: readCorners(outline!),
      note: before.find((one) => one.name === name)?.note ?? '',
    })),
  })
  if (done) cutDraft.value = null
}

/** Sizes have rows of their own here: the first is the stock's, the others a list. */
function sizeProblem(field: string): Problem | null {
  const index = Number(/\[(\d+)\]/.exec(field)?.[1])
  if (index) return props.problemAt(`other_sheets[${index - 1}]`)
  return ['sheet_width', 'sheet_height', 'sheets'].map(props.problemAt).find(Boolean) ?? null
}
</script>

<template>
  <h2>The board</h2>
  <div class="two">
    <TextField
      class="wide"
      field="name"
      label="Name"
      words
      :text="stock.document.name"
      :problem="problemAt('name')"
      @commit="change({ name: $event })"
    />
    <ChoiceField
      label="Kind"
      :options="optionsOf(choices.stock_kinds)"
      :model-value="asked ? 'composite' : stock.document.kind"
      @update:model-value="changeKind"
    />
    <ChoiceField
      v-if="composite"
      label="Made of"
      field="made_of"
      :options="optionsOf(choices.made_of)"
      :model-value="stock.document.made_of || null"
      placeholder="what is it made of?"
      :problem="problemAt('made_of')"
      @update:model-value="change({ kind: 'composite', made_of: $event })"
    />
    <TextField
      field="nominal"
      label="Nominal thickness"
      :unit="say.unit"
      :text="short(stock.document.nominal)"
      :problem="problemAt('nominal')"
      @commit="change({ nominal: $event })"
    />
    <ChoiceField
      label="Grain or corrugation"
      :options="optionsOf(choices.directions)"
      :model-value="stock.document.direction"
      @update:model-value="change({ direction: $event })"
    />
    <TextField
      field="price"
      label="Price of a sheet"
      :text="stock.document.price == null ? '' : say.number(stock.document.price, 2)"
      :problem="problemAt('price')"
      @commit="change({ price: $event })"
    />
    <TextField
      v-for="[name, label] in LIMITS"
      :key="name"
      :field="`limits.${name}`"
      :label="label"
      :text="shownLimit(say, name, limits[name])"
      :placeholder="usual(name)"
      :unit="name === 'density' ? '' : settings.unit"
      :problem="problemAt(`limits.${name}`)"
      @commit="changeLimit(name, $event)"
    />
    <MachineRules
      :key="stock.id"
      class="wide"
      :own="limits"
      :usual="stock.usual"
      :problem-at="problemAt"
      @change="change({ limits: { ...typedLimits(limits), ...$event } })"
    />
    <KindLimits class="wide" :kind="stock.document.kind" />
    <TextField
      class="wide"
      field="note"
      label="Note"
      words
      placeholder="tape under it, glue that burns"
      :text="stock.document.note"
      :problem="problemAt('note')"
      @commit="change({ note: $event })"
    />
  </div>
  <h2>Sheets at hand, {{ say.unit }}</h2>
  <RowsEditor
    v-model:draft="sizeDraft"
    :columns="[
      { name: 'width', label: 'Width' },
      { name: 'height', label: 'Height' },
      { name: 'count', label: 'Count' },
    ]"
    :rows="sizes"
    field="sizes"
    add="Add another size"
    :problem-at="sizeProblem"
    @commit="changeSizes"
  />
  <p class="small second">New jobs use the first size. Leave the count empty for as many as it takes.</p>
  <h2>Off-cuts</h2>
  <RowsEditor
    v-model:draft="cutDraft"
    :columns="[
      { name: 'name', label: 'Name', words: true },
      { name: 'outline', label: 'Corners, or width × height', below: true },
    ]"
    :rows="offcuts"
    field="offcuts"
    add="Add an off-cut"
    :problem-at="problemAt"
    @commit="changeOffcuts"
  />
  <p class="small second">
    Type a size, or each corner as x y in order, with semicolons between: 0 0; 9 0; 9 4; 0 7
  </p>
</template>
