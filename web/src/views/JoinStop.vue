<script setup lang="ts">
import { computed, onMounted } from 'vue'

import AssembledDrawing from '../components/AssembledDrawing.vue'
import JointLoupe from '../components/JointLoupe.vue'
import LedgerPanel from '../components/LedgerPanel.vue'
import ReliefChoice from '../components/ReliefChoice.vue'
import StopLayout from '../components/StopLayout.vue'
import { useJob } from '../stores/job'
import { useSettings } from '../stores/settings'
import { lengthText } from '../units'

const job = useJob()
const settings = useSettings()

const mate = computed(() => job.design!.mates.find(({ id }) => job.selected === `joint:${id}`))
const proved = computed(() => job.proof?.mates.find(({ mate: id }) => id === mate.value?.id))

onMounted(() => {
  if (!mate.value && job.design!.mates[0]) job.selected = `joint:${job.design!.mates[0].id}`
})
</script>

<template>
  <StopLayout title="Assembled" :about="`${job.design!.mates.length} joints, to scale along each axis`">
    <div class="join">
      <AssembledDrawing />
      <div class="right">
        <JointLoupe v-if="mate" :mate="mate" />
        <ul aria-label="Joints">
          <li v-for="one in job.design!.mates" :key="one.id">
            <button :aria-pressed="one.id === mate?.id" @click="job.selected = `joint:${one.id}`">
              <span
                >{{ one.title }}
                <span v-if="one.fit.wants" class="small" :class="one.fit.fails ? 'bad' : 'ochre'">{{
                  one.fit.wants
                }}</span></span
              >
              <span class="small second figure"
                >{{ one.fingers }} × {{ lengthText(one.finger, settings.unit) }}</span
              >
            </button>
          </li>
        </ul>
      </div>
    </div>
    <template #ledger>
      <ReliefChoice />
      <LedgerPanel v-if="mate" :subject="`joint:${mate.id}`" :title="mate.title" about="finger joint at 90°">
        <p v-if="proved?.clearance" class="proved">
          <span class="tick">✓</span> as cut, from the file
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
ul {
  max-height: 176px;
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
