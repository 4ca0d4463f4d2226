<script setup lang="ts">
import { computed } from 'vue'

import type { Proof } from '../api/client'
import { useSay } from '../composables/useSay'
import OkTick from './OkTick.vue'
import { useJob } from '../stores/job'

/** What was measured on the as-cut parts, part by part and joint by joint. */
const props = defineProps<{ proof: Proof }>()
const job = useJob()
const say = useSay()

const titles = computed(
  () => new Map(job.design!.parts.map(({ id, title, quantity }) => [id, { title, quantity }])),
)
const mates = computed(() => new Map(job.design!.mates.map(({ id, title }) => [id, title])))

function partTitle(id: string, copy: number): string {
  const part = titles.value.get(id)
  return part && part.quantity > 1 ? `${part.title} ${copy}` : (part?.title ?? id)
}

const fine = (mm: number | null) => (mm === null ? 'missing' : say.length(mm, 3))
const proud = computed(() => {
  const all = props.proof.mates.flatMap(({ proud: one }) => (one ? [one] : []))
  return all.length
    ? { thin: Math.max(...all.map(([thin]) => thin)), thick: Math.min(...all.map(([, , thick]) => thick)) }
    : null
})
</script>

<template>
  <section>
    <h2>Parts, deviation from nominal</h2>
    <ul>
      <li v-for="part in proof.parts" :key="`${part.part}-${part.copy}`">
        <OkTick :ok="part.ok" :provided="say.sentence(proof.provided)" />
        <button @click="job.pick('part', part.part)">
          {{ partTitle(part.part, part.copy) }}
        </button>
        <span class="figure"
          >{{ fine(part.edge) }} <span class="second">{{ say.unit }}</span></span
        >
        <span class="because small second">
          Outer corners <span class="figure">{{ fine(part.corner) }}</span> · inner corners
          <span class="figure">{{ fine(part.inside_corner) }}</span>
        </span>
      </li>
    </ul>
    <h2>Joints, clearance as cut</h2>
    <p v-if="proud" class="small second about">
      Tabs and fingers stand up to {{ fine(proud.thin) }} proud where the board is thinnest, and up to
      {{ fine(-proud.thick) }} short where it is thickest.
    </p>
    <ul>
      <li v-for="mate in proof.mates" :key="mate.mate">
        <OkTick :ok="mate.ok" :provided="say.sentence(proof.provided)" />
        <button @click="job.pick('joint', mate.mate)">{{ mates.get(mate.mate) }}</button>
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
h2 {
  padding: 14px 18px 4px;
}
.about {
  padding: 0 18px 6px;
}
li {
  display: grid;
  grid-template-columns: 24px 1fr auto;
  align-items: baseline;
  padding: 3px 18px 3px 10px;
  border-top: 1px solid var(--line);
}
li button {
  padding: 0;
  border: 0;
}
li button:hover {
  color: var(--deep);
  text-decoration: underline;
}
.because {
  grid-column: 2 / -1;
}
</style>
