<script setup lang="ts">
import type { Finding } from '../api/client'
import { freeName } from '../steps'
import { useJob } from '../stores/job'
import { useSettings } from '../stores/settings'
import { inUnit } from '../units'

/** What the proof found: where, how much, and what to do. */
const props = defineProps<{
  findings: readonly Finding[]
  fresh: boolean
  onShow?: (finding: Finding) => void
}>()
const job = useJob()
const settings = useSettings()

/** The part that a placement stands for becomes one of its own, the same so far. */
function makeOwn(placement: string): void {
  const part = job.design!.parts.find(({ id }) =>
    job.design!.standings.some((one) => one.placement === placement && one.part === id),
  )
  if (!part) return
  const id = freeName(part.id, job.design!.parts.map((one) => one.id)) // prettier-ignore
  const steps = part.steps.map(({ document }) => document)
  void job.edit(
    {
      verb: 'put',
      path: `parts/${id}`,
      value: { title: `${part.title} at ${placement}`, board: part.board, steps },
    },
    { verb: 'put', path: `placements/${placement}/part`, value: id },
  )
}
</script>

<template>
  <section :class="{ stale: !fresh }">
    <h3>{{ findings.length ? 'Found' : 'No problems found' }}</h3>
    <ul>
      <li v-for="(finding, i) in findings" :key="i" :class="finding.severity">
        <p>{{ inUnit(finding.why, settings.unit) }}</p>
        <p class="small second">{{ inUnit(finding.fix, settings.unit) }}</p>
        <button v-if="finding.place && onShow" class="link small" @click="props.onShow!(finding)">
          show the place
        </button>
        <button
          v-if="finding.code === 'placements-differ'"
          class="link small"
          @click="makeOwn(finding.field.replace('placements/', ''))"
        >
          Make it a part of its own
        </button>
      </li>
    </ul>
  </section>
</template>

<style scoped>
section {
  padding-top: 12px;
}
.stale {
  opacity: 0.5;
}
h3 {
  padding: 0 18px 6px;
  font-size: 15.5px;
  font-weight: 600;
}
li {
  padding: 7px 18px;
  border-top: 1px solid var(--line);
  border-left: 3px solid var(--ochre);
}
li.stop {
  border-left-color: var(--bad);
}
li.unseen {
  border-left-style: dashed;
}
</style>
