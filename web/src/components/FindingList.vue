<script setup lang="ts">
import type { Finding } from '../api/client'
import { useSettings } from '../stores/settings'
import { inUnit } from '../units'

/** What the proof found: where, how much, and what to do. */
defineProps<{ findings: readonly Finding[]; fresh: boolean }>()
defineEmits<{ show: [place: readonly [number, number]] }>()
const settings = useSettings()
</script>

<template>
  <section :class="{ stale: !fresh }">
    <h3>{{ findings.length ? 'Found' : 'Nothing to mend' }}</h3>
    <ul>
      <li v-for="(finding, i) in findings" :key="i" :class="finding.severity">
        <p>{{ inUnit(finding.why, settings.unit) }}</p>
        <p class="small second">{{ inUnit(finding.fix, settings.unit) }}</p>
        <button
          v-if="finding.place"
          class="link small"
          @click="$emit('show', finding.place as [number, number])"
        >
          show the place
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
</style>
