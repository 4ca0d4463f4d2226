<script setup lang="ts">
import { computed, onMounted, ref, shallowRef, useTemplateRef, watch } from 'vue'

import { api, type Together } from '../api/client'
import InTheWay from '../components/InTheWay.vue'
import JointEditor from '../components/JointEditor.vue'
import JointLoupe from '../components/JointLoupe.vue'
import JointOffers from '../components/JointOffers.vue'
import LedgerPanel from '../components/LedgerPanel.vue'
import JointTrial from '../components/JointTrial.vue'
import OkTick from '../components/OkTick.vue'
import PartLedger from '../components/PartLedger.vue'
import PlacePart from '../components/PlacePart.vue'
import ReliefChoice from '../components/ReliefChoice.vue'
import SolidView from '../components/SolidView.vue'
import StopLayout from '../components/StopLayout.vue'
import { useSay } from '../composables/useSay'
import { useJob } from '../stores/job'

const job = useJob()
const say = useSay()

const mate = computed(() => job.design!.mates.find(({ id }) => id === job.picked.joint))
/** Every joint of the design: those that cannot be made are said with why. */
const rows = computed(() =>
  (job.design!.joints as { id: string; title: string }[]).map(({ id, title }) => ({
    id,
    title,
    mate: job.design!.mates.find((one) => one.id === id),
    lost: job.design!.findings.find(({ joint, severity }) => joint === id && severity === 'stop'),
  })),
)
const title = computed(() => rows.value.find(({ id }) => id === job.picked.joint)?.title)
const lost = computed(() => rows.value.find(({ id }) => id === job.picked.joint)?.lost)
/** Only of the state that is shown. */
const proved = computed(() => job.fresh?.mates.find(({ mate: id }) => id === mate.value?.id))

/** Looked at in each pause between edits. Until the next look what was offered stays, but for what is joined by now and for parts that
 * stand elsewhere or became others; what was found to be in the way is of its own state only. */
const looked = shallowRef<{ id: number; moves: number; found: Together; stood: Map<string, string> } | null>(
  null,
)
/** Where each part stands and how large it is, by placement. */
function standing(): Map<string, string> {
  const boxes = new Map(job.design!.parts.map(({ id, box }) => [id, box]))
  return new Map(
    job.design!.standings.map((one) => [one.placement, JSON.stringify([one, boxes.get(one.part)])]),
  )
}
const isFresh = computed(() => looked.value?.moves === job.design!.moves)
type Member = { placement: string }
const pair = (one: { first: unknown; second: unknown }) =>
  [one.first, one.second].map((member) => (member as Member).placement).sort().join(' ') // prettier-ignore
const together = computed<Together | null>(() => {
  const last = looked.value
  if (!last || last.id !== job.design!.id) return null
  if (isFresh.value) return last.found
  const joined = new Set((job.design!.joints as { first: Member; second: Member }[]).map(pair))
  const now = standing()
  const proposals = last.found.proposals.filter(
    (one) =>
      !joined.has(pair(one)) &&
      pair(one)
        .split(' ')
        .every((id) => now.has(id) && now.get(id) === last.stood.get(id)),
  )
  return { ...last.found, proposals }
})
const place = useTemplateRef('place')
const standsNothing = computed(() => !job.design!.placements.length)
/** As many as find room. */
const FEW = 8
const first = computed(() => job.design!.parts.slice(0, FEW))
const chosen = ref('')
async function lookTogether(): Promise<void> {
  const { id, moves, problem } = job.design!
  if (problem) return
  const found = await api.together(id)
  if (job.design?.id === id && job.design.moves === moves)
    looked.value = { id, moves, found, stood: standing() }
}
watch(
  () => job.pauses,
  () => void job.attempt(lookTogether),
)
onMounted(() => void job.attempt(lookTogether))
const marks = computed(() =>
  (together.value?.proposals ?? []).map((one, i) => ({
    key: String(i),
    place: one.place as [number, number, number],
    says: say.sentence(one.sentence),
    strong: !!one.off,
  })),
)

/** The first one, to begin with; the paper unselects it. */
onMounted(() => {
  if (!job.selected && rows.value[0]) job.pick('joint', rows.value[0].id)
})
/** What needs attention first; then in the design's own order. */
const sorted = computed(() => {
  const rank = ({ mate: one }: (typeof rows.value)[number]) => (!one ? 0 : one.fit.wants ? 1 : 2)
  return [...rows.value].sort((a, b) => rank(a) - rank(b))
})
</script>

<template>
  <StopLayout
    title="Assembled"
    :about="
      standsNothing
        ? 'no part stands'
        : `${rows.length} joint${rows.length === 1 ? '' : 's'}, drag to turn it, Shift to move it`
    "
  >
    <section v-if="standsNothing" class="nothing">
      <h2>Nothing stands yet</h2>
      <p v-if="!first.length" class="second">Add parts at Shape; here they are stood up and joined.</p>
      <template v-else>
        <p class="second">
          Parts are joined where they meet once they stand. Stand one up, then the next beside it or against
          it:
        </p>
        <div class="acts">
          <ElButton v-for="part in first" :key="part.id" size="small" @click="place?.standOne(part.id)">{{
            part.title
          }}</ElButton>
        </div>
      </template>
    </section>
    <div v-else class="join">
      <SolidView
        :marks="marks.filter(({ key, strong }) => strong || key === chosen)"
        @mark="chosen = $event"
      />
      <div class="right">
        <JointLoupe v-if="mate" :mate="mate" />
        <section class="list">
          <h2>{{ rows.length }} joint{{ rows.length === 1 ? '' : 's' }}</h2>
          <ul aria-label="Joints" tabindex="0">
            <li v-for="one in sorted" :key="one.id">
              <ElButton
                text
                class="row"
                :aria-pressed="job.picked.joint === one.id"
                @click="job.pick('joint', one.id)"
              >
                <span
                  >{{ one.title }}
                  <span v-if="!one.mate" class="small bad">Cannot be made</span>
                  <span
                    v-else-if="one.mate.fit.wants"
                    class="small"
                    :class="one.mate.fit.fails ? 'bad' : 'ochre'"
                    :title="say.sentence(one.mate.fit.wants)"
                    >{{ one.mate.fit.verdict }}</span
                  ></span
                >
                <span v-if="one.mate?.contacts[0]" class="small second figure whole"
                  >{{ say.length(one.mate.contacts[0].width) }}
                  {{ one.mate.contacts[0].by_thickness ? 'board' : one.mate.inner }}</span
                >
              </ElButton>
            </li>
          </ul>
        </section>
      </div>
    </div>
    <template #ledger>
      <section v-if="lost" class="lost">
        <p>{{ say.sentence(lost.why) }}</p>
        <p class="small second">{{ say.sentence(lost.fix) }}</p>
      </section>
      <h2 v-if="title" class="selected">{{ title }}</h2>
      <JointEditor />
      <LedgerPanel v-if="mate" :subject="`joint:${mate.id}`" title="Its numbers" :about="mate.about">
        <p v-if="proved?.clearance" class="proved">
          <OkTick :ok="proved.ok" :provided="say.sentence(job.fresh?.provided ?? '')" /> As cut, from the file
          <span class="figure">
            {{ say.length(proved.clearance[0], 3) }} … {{ say.length(proved.clearance[1], 3) }}
          </span>
        </p>
      </LedgerPanel>
      <JointTrial v-if="mate" :key="mate.id" :mate="mate" />
      <PlacePart ref="place" :says="isFresh ? (together?.stands ?? null) : null" />
      <PartLedger />
      <JointOffers v-if="together" :together="together" :chosen="chosen" @choose="chosen = $event" />
      <InTheWay v-if="together && isFresh" :together="together" />
      <ReliefChoice />
    </template>
  </StopLayout>
</template>

<style scoped>
.nothing {
  max-width: 44rem;
  padding: 20px 22px;
}
.nothing .acts {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  padding-top: 10px;
}
.nothing .acts :deep(.el-button + .el-button) {
  margin-left: 0;
}
.join {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 20rem;
  min-height: 0;
}
.right {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  grid-template-rows: auto minmax(7rem, 1fr);
  gap: 10px;
  min-height: 0;
  padding: 0 16px 10px 0;
}
.list {
  display: grid;
  grid-template-rows: auto minmax(0, 1fr);
  min-height: 0;
}
.whole {
  white-space: nowrap;
}
.list h2 {
  font-size: 1rem;
}
.list ul {
  overflow-y: auto;
  border-block: 1px solid var(--line);
}
.lost {
  padding: 8px 18px;
  border-left: 3px solid var(--bad);
}
.selected {
  padding: 12px 18px 0;
}
.proved {
  display: flex;
  gap: 6px;
  padding: 6px 18px 6px 12px;
  border-top: 1px solid var(--line);
}
.proved .figure {
  margin-left: auto;
}
@media (max-width: 1180px) {
  .join {
    grid-template-columns: minmax(0, 1fr) 16rem;
  }
}
@media (max-width: 860px) {
  .join {
    grid-template-columns: 1fr;
  }
  .join > :first-child {
    min-height: 24rem;
  }
  .right {
    display: block;
    padding: 0 16px;
  }
}
</style>
