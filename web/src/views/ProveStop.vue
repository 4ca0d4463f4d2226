<script setup lang="ts">
import { computed, ref, useTemplateRef, watch } from 'vue'
import { useMediaQuery } from '@vueuse/core'

import type { Finding, Tested } from '../api/client'
import CornerInset from '../components/CornerInset.vue'
import CutSlider from '../components/CutSlider.vue'
import FindingList from '../components/FindingList.vue'
import FindingSteps from '../components/FindingSteps.vue'
import ProofDrawing from '../components/ProofDrawing.vue'
import ProofLedger from '../components/ProofLedger.vue'
import ProveVerdict from '../components/ProveVerdict.vue'
import SheetTabs from '../components/SheetTabs.vue'
import SolidView from '../components/SolidView.vue'
import StopLayout from '../components/StopLayout.vue'
import TestedList from '../components/TestedList.vue'
import { useSay } from '../composables/useSay'
import { useShortcuts } from '../composables/useShortcuts'
import { furthestOff, magnification } from '../geometry/magnified'
import type { Ring } from '../geometry/solids'
import PickField from '../kit/PickField.vue'
import { useJob } from '../stores/job'

/** The verdict first; then the sheet as it comes out, a corner much enlarged, and what was tested. */
const job = useJob()
const say = useSay()
const number = ref(1)
const shown = ref<'sheet' | 'assembled'>('sheet')
const at = ref(0)
const done = ref(Infinity)
const corners = ref(false)
const drawing = useTemplateRef('drawing')
const VIEWS = [
  { value: 'sheet' as const, label: 'Sheet' },
  { value: 'assembled' as const, label: 'Assembled' },
]

const narrow = useMediaQuery('(max-width: 860px)')
const sheets = computed(() => job.design!.sheets)
const sheet = computed(() => sheets.value[Math.min(number.value, sheets.value.length) - 1])
/** Of just this state: an older one is of other parts. */
const proof = computed(() => job.fresh)
const findings = computed(() => proof.value?.findings ?? [])
const finding = computed<Finding | null>(() => findings.value[at.value] ?? null)
const paths = computed(() => proof.value?.paths[String(sheet.value?.number)] ?? [])
const titles = computed(() => new Map(job.design!.parts.map(({ id, title }) => [id, title])))
const tool = computed(() => (job.basis?.machine.kind === 'laser' ? 'beam' : 'tool'))
const about = computed(() => {
  if (!sheet.value) return ''
  const { number: n, width, height } = sheet.value
  const of = sheets.value.length > 1 ? ` ${n} of ${sheets.value.length}` : ''
  return `what the ${tool.value} leaves of the sheet${of}, ${say.size(width, height)} ${say.unit}`
})

/** The corner follows the finding, else the part that is selected, else it is the tightest that there is. */
const closeUp = computed(() => {
  const all = proof.value?.close_ups ?? []
  const ofFinding = all.find((one) => one.finding === at.value && findings.value.length > 0)
  const plain = all.filter((one) => one.finding < 0)
  if (ofFinding && followed.value === 'finding') return ofFinding
  return (
    plain.find(({ part }) => part === job.picked.part) ??
    plain.find(({ what }) => what !== 'edge') ??
    plain[0]
  )
})
const followed = ref<'finding' | 'part'>('finding')
watch(
  () => job.picked.part,
  (part) => part && (followed.value = 'part'),
)
watch(findings, () => (at.value = 0))
watch([at, findings], () => {
  followed.value = 'finding'
  const on = finding.value?.sheet
  if (on) number.value = on
})

function step(by: number): void {
  const count = findings.value.length
  if (count) at.value = (at.value + by + count) % count
}
useShortcuts({ next: () => step(1), previous: () => step(-1) })

function look({ place, amount }: Finding): void {
  shown.value = 'sheet'
  if (place) requestAnimationFrame(() => drawing.value?.lookAt(place as [number, number], amount))
}

/** What a test found is marked: its first finding, or the corners themselves. */
function pick(test: Tested): void {
  corners.value = test.key === 'corners' && !corners.value
  const found = findings.value.findIndex(({ code }) => test.codes.includes(code))
  if (found >= 0) at.value = found
  if (test.key === 'space' || test.key === 'thickness') shown.value = 'assembled'
  if (test.key === 'paths') shown.value = 'sheet'
}

const most = computed(() => furthestOff(proof.value?.parts ?? []))
const keptMost = computed(() =>
  Math.max(0, ...(proof.value?.parts ?? []).flatMap(({ kept }) => kept.map(([, , off]) => off!))),
)
/** Over an empty end of the sheet the corner hides nothing; else the sheet makes room for it. */
const INSET_PX = 26 * parseFloat(getComputedStyle(document.documentElement).fontSize)
const aside = computed(() => {
  const boxes = new Map(job.design!.parts.map(({ id, box }) => [id, box]))
  const covered = job.design!.placed.some(({ part, sheet: on, x, y, angle }) => {
    if (on !== sheet.value?.number) return false
    const [left, , right, high] = boxes.get(part)!
    const [toRight, toTop] = angle === 90 ? [left, right] : [right, high]
    return x + toRight > 0.45 * sheet.value.width && y + toTop > 0.4 * sheet.value.height
  })
  return covered ? INSET_PX : 0
})
</script>

<template>
  <StopLayout title="As cut" :about="about">
    <template #actions>
      <PickField v-if="sheet" v-model="shown" label="View" hide-label :options="VIEWS" />
      <SheetTabs v-model="number" :count="sheets.length" />
    </template>
    <!-- Where all stands below each other, the verdict still comes first. -->
    <ProveVerdict v-if="narrow" />
    <div v-if="sheet" class="views">
      <ProofDrawing
        v-if="shown === 'sheet'"
        ref="drawing"
        :sheet="sheet"
        :proof="proof"
        :done="done"
        :finding="finding"
        :corners="corners"
        :aside="aside"
      />
      <SolidView v-else-if="proof" :pieces="proof.as_cut as Record<string, Ring[]>" :aside="INSET_PX" />
      <p v-else class="nothing second">The parts are put together as cut once the file is proved.</p>
      <CornerInset v-if="closeUp" class="corner" :of="closeUp" :tool="tool" />
      <ul v-if="proof && shown === 'sheet'" class="legend small second">
        <li v-if="most > 0">
          <i class="off" /> off nominal, drawn {{ magnification(most) }} times as large, at most
          <span class="figure">{{ say.length(most, 3) }}</span>
        </li>
        <li v-if="keptMost > 0">
          <i class="dot" /> inner corner, at most
          <span class="figure">{{ say.length(keptMost, 3) }}</span> left in it
        </li>
      </ul>
      <CutSlider v-if="proof && shown === 'sheet'" v-model="done" :paths="paths" :titles="titles" />
    </div>
    <p v-else class="nothing second">
      Add parts at Shape. They are proved from the file as soon as they can be cut.
    </p>
    <template #ledger>
      <ProveVerdict v-if="!narrow" />
      <template v-if="job.proof && sheet">
        <!-- Figures of an older state stand back, and are said to be old just above. -->
        <div :class="{ stale: !job.fresh }" :aria-hidden="job.fresh ? undefined : 'true'">
          <FindingSteps v-model="at" :findings="job.proof.findings" @look="look" />
          <TestedList
            :tests="job.proof.tested"
            :provided="job.proof.provided"
            :not-looked-at="job.proof.not_looked_at"
            @pick="pick"
          />
          <details v-if="job.proof.findings.length > 1" class="all">
            <summary>All {{ job.proof.findings.length }} things to look at</summary>
            <FindingList :findings="job.proof.findings" @show="look" />
          </details>
          <details class="all">
            <summary>Part by part, joint by joint</summary>
            <ProofLedger :proof="job.proof" />
          </details>
        </div>
      </template>
    </template>
  </StopLayout>
</template>

<style scoped>
.views {
  position: relative;
  display: grid;
  grid-template-rows: minmax(0, 1fr) auto auto;
  min-height: 0;
}
.corner {
  position: absolute;
  top: 6px;
  right: 16px;
  z-index: 3;
}
.stale {
  filter: grayscale(1);
  opacity: 0.55;
}
.legend {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 22px;
  padding: 2px 22px 4px;
}
i {
  display: inline-block;
  margin-right: 5px;
  vertical-align: middle;
}
i.off {
  width: 16px;
  height: 8px;
  background: var(--ochre);
}
i.dot {
  width: 7px;
  height: 7px;
  border-radius: 50%;
  background: var(--deep);
}
.nothing {
  padding: 20px 22px;
}
.all {
  border-top: 1px solid var(--line);
}
.all > summary {
  padding: 7px 18px;
}
@media (max-width: 860px) {
  .views {
    grid-template-rows: minmax(20rem, 62vh) auto auto auto;
  }
  .corner {
    position: static;
    margin: 8px auto;
  }
}
</style>
