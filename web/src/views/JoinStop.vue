<script setup lang="ts">
import { computed, onMounted, watch } from 'vue'

import AssembledDrawing from '../components/AssembledDrawing.vue'
import JointEditor from '../components/JointEditor.vue'
import JointLoupe from '../components/JointLoupe.vue'
import LedgerPanel from '../components/LedgerPanel.vue'
import ReliefChoice from '../components/ReliefChoice.vue'
import StopLayout from '../components/StopLayout.vue'
import { useJob } from '../stores/job'
import { useSettings } from '../stores/settings'
import { inUnit, lengthText } from '../units'

const job = useJob()
const settings = useSettings()

const mate = computed(() => job.design!.mates.find(({ id }) => job.selected === `joint:${id}`))
/** Every joint of the design: those that cannot be made are said with why. */
const rows = computed(() =>
  (job.design!.joints as { id: string; title: string }[]).map(({ id, title }) => ({
    id,
    title,
    mate: job.design!.mates.find((one) => one.id === id),
    lost: job.design!.findings.find(({ joint, severity }) => joint === id && severity === 'stop'),
  })),
)
const lost = computed(() => rows.value.find(({ id }) => job.selected === `joint:${id}`)?.lost)
/** Only of the state that is shown. */
const proved = computed(() =>
  job.proof?.moves === job.design!.moves
    ? job.proof.mates.find(({ mate: id }) => id === mate.value?.id)
    : undefined,
)

/** One is always looked at, also after one was removed. */
function select(): void {
  if (!rows.value.some(({ id }) => job.selected === `joint:${id}`) && rows.value[0])
    job.selected = `joint:${rows.value[0].id}`
}
onMounted(select)
watch(rows, select)
</script>

<template>
  <StopLayout
    title="Assembled"
    :about="`${rows.length} joint${rows.length === 1 ? '' : 's'}, to scale along each axis`"
  >
    <div class="join">
      <AssembledDrawing />
      <div class="right" :class="{ bare: !mate }">
        <JointLoupe v-if="mate" :mate="mate" />
        <ul aria-label="Joints">
          <li v-for="one in rows" :key="one.id">
            <button
              :aria-pressed="job.selected === `joint:${one.id}`"
              @click="job.selected = `joint:${one.id}`"
            >
              <span
                >{{ one.title }}
                <span v-if="!one.mate" class="small bad">cannot be made</span>
                <span
                  v-else-if="one.mate.fit.wants"
                  class="small"
                  :class="one.mate.fit.fails ? 'bad' : 'ochre'"
                  >{{ one.mate.fit.wants }}</span
                ></span
              >
              <span v-if="one.mate?.contacts[0]" class="small second figure"
                >{{ lengthText(one.mate.contacts[0].width, settings.unit) }}
                {{ one.mate.contacts[0].by_thickness ? 'board' : one.mate.inner }}</span
              >
            </button>
          </li>
        </ul>
      </div>
    </div>
    <template #ledger>
      <ReliefChoice />
      <section v-if="lost" class="lost">
        <p>{{ inUnit(lost.why, settings.unit) }}</p>
        <p class="small second">{{ inUnit(lost.fix, settings.unit) }}</p>
      </section>
      <JointEditor />
      <LedgerPanel v-if="mate" :subject="`joint:${mate.id}`" :title="mate.title" :about="mate.about">
        <p v-if="proved?.clearance" class="proved">
          <span v-if="proved.ok" class="tick">✓</span> as cut, from the file
          <span class="figure">
            {{ lengthText(proved.clearance[0], settings.unit, 3) }} …
            {{ lengthText(proved.clearance[1], settings.unit, 3) }}
          </span>
        </p>
      </LedgerPanel>
    </template>
  </StopLayout>
</template>

<style scoped>
.join {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 300px;
  min-height: 0;
}
.right {
  display: grid;
  grid-template-rows: minmax(260px, 1fr) auto;
  gap: 10px;
  min-height: 0;
  padding: 0 16px 14px 0;
}
.right.bare {
  grid-template-rows: minmax(0, 1fr);
}
.right:not(.bare) ul {
  max-height: 176px;
}
ul {
  overflow-y: auto;
}
li button {
  display: flex;
  justify-content: space-between;
  width: 100%;
  padding: 2px 8px;
}
li button:hover {
  background: var(--panel);
}
[aria-pressed='true'] {
  background: var(--deep-wash);
  color: var(--deep);
  font-weight: 500;
}
.bad {
  color: var(--bad);
}
.lost {
  padding: 8px 18px;
  border-left: 3px solid var(--bad);
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
.tick {
  color: var(--deep);
}
</style>
