<script setup lang="ts">
import { computed, nextTick, ref, useTemplateRef, watch } from 'vue'

import FindingList from '../components/FindingList.vue'
import FlatDrawing from '../components/FlatDrawing.vue'
import JobFields from '../components/JobFields.vue'
import LedgerPanel from '../components/LedgerPanel.vue'
import NamedLengths from '../components/NamedLengths.vue'
import PartCanvas from '../components/PartCanvas.vue'
import PartHead from '../components/PartHead.vue'
import PartLedger from '../components/PartLedger.vue'
import RecipeSettings from '../components/RecipeSettings.vue'
import StepList from '../components/StepList.vue'
import StopLayout from '../components/StopLayout.vue'
import { usePlacing } from '../composables/usePlacing'
import { useShortcuts } from '../composables/useShortcuts'
import type { Thing } from '../geometry/measured'
import { freeName, newPart } from '../steps'
import { useSay } from '../composables/useSay'
import { useJob } from '../stores/job'

/** The parts: all of them at one scale, or the selected one large, its steps as sentences beside it. */
const job = useJob()
const say = useSay()
const part = computed(() => job.part)
const placing = usePlacing(() => part.value)
const canvas = useTemplateRef('canvas')
const mode = ref<'' | 'from' | 'measure'>('')
watch(
  () => [job.picked.part, job.picked.step],
  ([now], [before]) => {
    if (mode.value === 'from' || now !== before) mode.value = ''
  },
)
useShortcuts({ measure: () => part.value && (mode.value = mode.value === 'measure' ? '' : 'measure') })

const about = computed(() => {
  if (!part.value) return sizes.value
  const { box, board, quantity } = part.value
  const stock = job.design!.boards.find(({ id }) => id === board)?.basis.stock.name ?? ''
  const rows = new Map(job.design!.ledger[`part:${part.value.id}`]?.map((row) => [row.key, row.value]))
  const grams = rows.get('weight') ?? 0
  return [
    say.size(box[2] - box[0], box[3] - box[1]),
    `${quantity} of ${stock}`,
    say.area(rows.get('area') ?? 0),
    say.mass(grams),
    `cut ${say.far(rows.get('outline') ?? 0)}`,
  ].join(' · ')
})

const sizes = computed(() => {
  const rows = new Map(job.design!.ledger['job']?.map((row) => [row.key, row.value]))
  // The recipe's lengths hold one thickness: with parts of several boards, what they call inside is not measured.
  if (
    (!rows.has('inside_width') && !rows.has('outside_width')) ||
    new Set(job.design!.parts.map(({ board }) => board)).size > 1
  )
    return ''
  const by = (side: 'inside' | 'outside') =>
    ['width', 'depth', 'height'].map((name) => say.short(rows.get(`${side}_${name}`) ?? rows.get(name) ?? 0))
  return `inside ${by('inside').join(' × ')} · outside ${by('outside').join(' × ')} ${say.unit}`
})

/** What is to be mended here and belongs to no step: names of what is not there, pieces that drop out. */
const findings = computed(() =>
  job.design!.findings.filter(
    ({ severity, field, part: of }) =>
      (severity === 'stop' && field && !field.includes('/steps/')) ||
      (!!part.value && of === part.value.id && !field.includes('/steps/')),
  ),
)

/** What steps say a name, and which names a step says: either lights the other. */
const light = ref<readonly string[]>([])
const lit = computed(() => new Set([...light.value, ...(job.litName ? [job.litName] : [])]))
watch(
  () => job.selected,
  () => (job.litName = ''),
)
const litLengths = computed(() => {
  const step = part.value?.steps.find(({ id }) => id === job.picked.step)
  return new Set([...lit.value, ...(step?.follows.names ?? [])])
})

/** The step keeps its place; its distance is counted from there, and opens to be typed. */
async function measureFrom(thing: Thing): Promise<void> {
  mode.value = ''
  const asked = {
    act: 'from' as const,
    part: part.value!.id,
    steps: [job.picked.step],
    of: thing.of.name,
    unit: say.unit,
  }
  if (thing.kind === 'line') {
    const [x0, y0, x1, y1] = thing.of.ends as [number, number, number, number]
    if (await placing.ask(asked)) await canvas.value?.open(Math.abs(x1 - x0) < Math.abs(y1 - y0) ? 'x' : 'y')
    return
  }
  if ((await placing.ask({ ...asked, axis: 'x' })) && (await placing.ask({ ...asked, axis: 'y' })))
    await canvas.value?.open('x')
}

async function addPart(): Promise<void> {
  const ids = job.design!.parts.map(({ id }) => id)
  const id = freeName('part', ids)
  const board = job.board?.id ?? 'main'
  const value = newPart(`Part ${ids.length + 1}`, board)
  if (!(await job.edit({ verb: 'put', path: `parts/${id}`, value }))) return
  job.pick('step', id, 'blank')
  await nextTick()
  document.querySelector<HTMLElement>(`[data-field='parts/${id}/title']`)?.focus()
}
</script>

<template>
  <StopLayout :title="part ? part.title : 'Parts, flat'" :about="about">
    <template #actions>
      <template v-if="part">
        <ElButton
          size="small"
          :type="mode === 'measure' ? 'primary' : ''"
          title="Measure between two things (M)"
          @click="mode = mode === 'measure' ? '' : 'measure'"
          >Measure</ElButton
        >
        <ElButton size="small" @click="job.selected = ''">All parts</ElButton>
      </template>
      <ElButton size="small" @click="addPart">Add a part</ElButton>
    </template>
    <PartCanvas
      v-if="part"
      ref="canvas"
      :key="part.id"
      :part="part"
      :placing="placing"
      :mode="mode"
      :lit="lit"
      @from="measureFrom"
      @leave="mode = ''"
    />
    <FlatDrawing v-else-if="job.design!.parts.length" />
    <p v-else class="empty second">
      This job has no parts yet. Add one: it starts as a rectangle, and takes holes, openings, lettering, and
      lines to score or fold, one step after the other.
    </p>
    <template #ledger>
      <template v-if="part">
        <PartHead v-slot="{ edge }" :part="part">
          <p v-if="edge" class="edge">
            Edge {{ edge.name.replace('.', ', ').replaceAll('-', ' ') }}:
            <span class="figure">{{ say.length(edge.length) }} {{ say.unit }}</span>
          </p>
        </PartHead>
        <FindingList v-if="findings.length" :findings="findings" />
        <StepList
          :part="part"
          :placing="placing"
          :picking="mode === 'from'"
          :lit="lit"
          @pick="mode = mode === 'from' ? '' : 'from'"
        />
        <NamedLengths :part="part" :lit="litLengths" @light="light = $event" />
        <PartLedger />
      </template>
      <template v-else>
        <p v-if="job.design!.parts.length" class="hint small second">
          Select a part to see its steps, and to add to them.
        </p>
        <FindingList v-if="findings.length" :findings="findings" />
        <NamedLengths :part="null" :lit="lit" @light="light = $event" />
      </template>
      <LedgerPanel subject="job" :title="job.design!.name" about="sizes, typed and computed">
        <RecipeSettings />
      </LedgerPanel>
      <JobFields />
    </template>
  </StopLayout>
</template>

<style scoped>
.hint {
  padding: 14px 18px 0;
}
.empty {
  max-width: 34rem;
  padding: 30px 22px;
}
.edge {
  padding: 4px 8px;
  background: var(--deep-wash);
}
</style>
