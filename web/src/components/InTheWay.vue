<script setup lang="ts">
import { computed } from 'vue'

import type { Together } from '../api/client'
import { useSay } from '../composables/useSay'
import { useJob } from '../stores/job'
import OkTick from './OkTick.vue'

/** What stands in each other's way: with boards as thick as they are on average, then at their thinnest and thickest. */
const props = defineProps<{ together: Together }>()
const job = useJob()
const say = useSay()
const WHERE = { mean: 'At the mean', thin: 'Where thin', thick: 'Where thick' }
const MOST = 3

const levels = computed(() =>
  props.together.levels.map((one) => ({
    ...one,
    title: WHERE[one.level],
    clear: !one.findings.length,
    wrong: one.findings.filter(({ severity }) => severity !== 'unseen'),
    unseen: one.findings.filter(({ severity }) => severity === 'unseen'),
  })),
)
const pairs = computed(() => props.together.levels[0]?.pairs ?? 0)

function look(joint: string, part: string): void {
  if (joint) job.pick('joint', joint)
  else if (part) job.pick('part', part)
}
</script>

<template>
  <section class="way">
    <h2>In each other’s way</h2>
    <p class="small second">
      The parts as solids, before they are cut: {{ pairs }} pair{{ pairs === 1 ? '' : 's' }} of neighbours.
    </p>
    <dl>
      <template v-for="one in levels" :key="one.level">
        <dt class="small">{{ one.title }}</dt>
        <dd class="small">
          <span v-if="one.clear"><OkTick :ok="true" provided="" /> none</span>
          <template v-for="finding in one.wrong.slice(0, MOST)" :key="finding.why">
            <button
              type="button"
              class="finding"
              :class="finding.severity"
              @click="look(finding.joint, finding.part)"
            >
              {{ say.sentence(finding.why) }}
            </button>
            <span class="second">{{ say.sentence(finding.fix) }}</span>
          </template>
          <span v-if="one.wrong.length > MOST" class="second">and {{ one.wrong.length - MOST }} more</span>
          <span v-for="finding in one.unseen" :key="finding.why" class="second">{{
            say.sentence(finding.why)
          }}</span>
        </dd>
      </template>
    </dl>
  </section>
</template>

<style scoped>
.way {
  padding: 8px 18px 12px;
  border-top: 1px solid var(--line);
}
dl {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 4px 12px;
  padding-top: 4px;
}
dd {
  display: grid;
  gap: 3px;
}
.finding {
  padding: 2px 8px;
  border: 0;
  border-left: 3px solid var(--ochre);
  background: none;
  color: inherit;
  font: inherit;
  text-align: left;
  cursor: pointer;
}
.finding.stop {
  border-color: var(--bad);
}
.finding:hover,
.finding:focus-visible {
  background: var(--deep-wash);
}
</style>
