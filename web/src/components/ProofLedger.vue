<script setup lang="ts">
import { computed } from 'vue'

import type { Proof } from '../api/client'
import { useJob } from '../stores/job'
import { useSettings } from '../stores/settings'
import { lengthText } from '../units'

/** What was measured on the as-cut parts, part by part and joint by joint. */
const props = defineProps<{ proof: Proof }>()
const job = useJob()
const settings = useSettings()

const titles = computed(
  () => new Map(job.design!.parts.map(({ id, title, quantity }) => [id, { title, quantity }])),
)
const mates = computed(() => new Map(job.design!.mates.map(({ id, title }) => [id, title])))

function partTitle(id: string, copy: number): string {
  const part = titles.value.get(id)
  return part && part.quantity > 1 ? `${part.title} ${copy}` : (part?.title ?? id)
}

const fine = (mm: number | null) => (mm === null ? 'missing' : lengthText(mm, settings.unit, 3))
const proud = computed(() => {
  const all = props.proof.mates.flatMap(({ proud: one }) => (one ? [one] : []))
  return all.length
    ? { thin: Math.max(...all.map(([thin]) => thin)), thick: Math.min(...all.map(([, , thick]) => thick)) }
    : null
})
</script>

<template>
  <section>
    <h3>Parts, off nominal</h3>
    <ul>
      <li v-for="part in proof.parts" :key="`${part.part}-${part.copy}`">
        <span class="tick" :class="{ bad: !part.ok }">{{ part.ok ? '✓' : '!' }}</span>
        <button @click="job.selected = `part:${part.part}`">
          {{ partTitle(part.part, part.copy) }}
        </button>
        <span class="figure"
          >{{ fine(part.edge) }} <span class="second">{{ settings.unit }}</span></span
        >
        <span class="because small second">
          sharp corners <span class="figure">{{ fine(part.corner) }}</span> · inside
          <span class="figure">{{ fine(part.inside_corner) }}</span>
        </span>
      </li>
    </ul>
    <h3>Joints, clearance as cut</h3>
    <p v-if="proud" class="small second about">
      What goes through a board stands up to {{ fine(proud.thin) }} proud where it is thinnest and falls up to
      {{ fine(-proud.thick) }} short where it is thickest.
    </p>
    <ul>
      <li v-for="mate in proof.mates" :key="mate.mate">
        <span class="tick" :class="{ bad: !mate.ok }">{{ mate.ok ? '✓' : '!' }}</span>
        <button @click="job.selected = `joint:${mate.mate}`">{{ mates.get(mate.mate) }}</button>
        <span class="figure">
          <template v-if="mate.clearance"
            >{{ fine(mate.clearance[0]) }} … {{ fine(mate.clearance[1]) }}</template
          >
          <template v-else>missing</template>
        </span>
      </li>
    </ul>
  </section>
</template>

<style scoped>
h3 {
  padding: 14px 18px 4px;
  font-size: 15.5px;
  font-weight: 600;
}
.about {
  padding: 0 18px 6px;
}
li {
  display: grid;
  grid-template-columns: 17px 1fr auto;
  align-items: baseline;
  padding: 4px 18px 4px 12px;
  border-top: 1px solid var(--line);
}
li button {
  padding: 0;
  border: 0;
}
li button:hover {
  color: var(--deep);
}
.tick {
  color: var(--deep);
}
.tick.bad {
  color: var(--bad);
  font-weight: 700;
}
.because {
  grid-column: 2 / -1;
}
</style>
