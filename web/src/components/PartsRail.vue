<script setup lang="ts">
import { computed } from 'vue'

import { useJob } from '../stores/job'
import { useSettings } from '../stores/settings'
import { roundedText, shortText } from '../units'

/** Every part as a true silhouette, all at one scale. */
const job = useJob()
const settings = useSettings()
const HEIGHT = 38
const WIDEST = 92

const parts = computed(() => job.design!.parts)
const scale = computed(() => {
  const widest = Math.max(1, ...parts.value.map(({ box }) => box[2] - box[0]))
  const highest = Math.max(1, ...parts.value.map(({ box }) => box[3] - box[1]))
  return Math.min(HEIGHT / highest, WIDEST / widest)
})
const pieces = computed(() => parts.value.reduce((sum, part) => sum + part.quantity, 0))
const area = computed(() =>
  parts.value.reduce((sum, part) => {
    const row = job.design!.ledger[`part:${part.id}`]?.find(({ key }) => key === 'area')
    return sum + part.quantity * (row?.value ?? 0)
  }, 0),
)
const boards = computed(() => job.design!.boards.map(({ basis }) => basis.stock.name).join(', '))
const wrong = computed(
  () => new Set([...(job.proof?.findings ?? []), ...job.design!.findings].map(({ part }) => part)),
)
</script>

<template>
  <section class="rail" aria-label="Parts">
    <div class="head">
      <b>{{ pieces }} part{{ pieces === 1 ? '' : 's' }}</b>
      <p class="small second">{{ roundedText(area / 1e6, 3) }} m² of {{ boards }}</p>
    </div>
    <button
      v-for="part in parts"
      :key="part.id"
      :aria-pressed="job.selected === `part:${part.id}`"
      :class="{ changed: job.changed.parts.has(part.id) }"
      @click="job.selected = job.selected === `part:${part.id}` ? '' : `part:${part.id}`"
    >
      <svg
        :width="(part.box[2] - part.box[0]) * scale"
        :height="(part.box[3] - part.box[1]) * scale"
        :viewBox="`${part.box[0]} ${-part.box[3]} ${part.box[2] - part.box[0]} ${part.box[3] - part.box[1]}`"
        aria-hidden="true"
      >
        <path :d="part.path" transform="scale(1 -1)" fill-rule="evenodd" />
      </svg>
      <span class="name">
        {{ part.title }}
        <span class="figure small second">×{{ part.quantity }}</span>
      </span>
      <span class="small second figure">
        {{ shortText(part.box[2] - part.box[0], settings.unit) }} ×
        {{ shortText(part.box[3] - part.box[1], settings.unit) }}
      </span>
      <span v-if="wrong.has(part.id)" class="mark ochre" title="wants a look">!</span>
    </button>
  </section>
</template>

<style scoped>
.rail {
  display: flex;
  background: var(--panel);
  border-top: 1px solid var(--line);
  overflow-x: auto;
}
.head {
  width: 178px;
  flex: none;
  padding: 10px 16px;
  border-right: 1px solid var(--line);
}
button {
  position: relative;
  display: grid;
  grid-template-rows: 40px auto auto;
  flex: none;
  min-width: 118px;
  padding: 4px 12px 3px;
  border: 0;
  border-right: 1px solid var(--line);
  border-top: 3px solid transparent;
  border-radius: 0;
}
button:focus-visible {
  outline-offset: -3px;
}
button:hover {
  background: var(--sheet);
}
svg {
  align-self: end;
  margin-bottom: 3px;
}
path {
  fill: color-mix(in srgb, var(--end-grain) 80%, var(--second));
}
[aria-pressed='true'] {
  background: var(--deep-wash);
  border-top-color: var(--deep);
}
[aria-pressed='true'] path {
  fill: var(--deep);
}
.changed {
  border-bottom: 3px solid var(--ochre);
}
.name {
  line-height: 1.35;
  display: flex;
  justify-content: space-between;
  gap: 10px;
}
.mark {
  position: absolute;
  top: 4px;
  right: 10px;
  font-weight: 700;
}
</style>
