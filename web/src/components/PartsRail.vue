<script setup lang="ts">
import { computed } from 'vue'

import { useSay } from '../composables/useSay'
import { useJob } from '../stores/job'

/** Every part as a true silhouette, all at one scale. */
const job = useJob()
const say = useSay()
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
  () => new Set([...(job.fresh?.findings ?? []), ...job.design!.findings].map(({ part }) => part)),
)

function menu(event: MouseEvent, part: string): void {
  const edge = (event.currentTarget as HTMLElement).getBoundingClientRect()
  job.pick('part', part)
  job.menuAt = event.clientX || event.clientY ? [event.clientX, event.clientY] : [edge.left, edge.top]
}
</script>

<template>
  <section class="rail" aria-label="Parts">
    <div class="head">
      <b>{{ pieces }} part{{ pieces === 1 ? '' : 's' }}</b>
      <p class="small second">{{ say.area(area, 'board') }} of {{ boards }}</p>
    </div>
    <button
      v-for="part in parts"
      :key="part.id"
      :aria-pressed="job.picked.part === part.id"
      :class="{ changed: job.changed.parts.has(part.id) }"
      @click="job.toggle('part', part.id)"
      @contextmenu.prevent="menu($event, part.id)"
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
        {{ say.size(part.box[2] - part.box[0], part.box[3] - part.box[1]) }}
      </span>
      <span v-if="wrong.has(part.id)" class="mark ochre" title="Has a problem"
        >!<span class="unseen">has a problem</span></span
      >
    </button>
  </section>
</template>

<style scoped>
.rail {
  display: flex;
  min-height: 6.3rem;
  background: var(--panel);
  border-top: 1px solid var(--line);
  overflow-x: auto;
}
.head {
  width: 12rem;
  flex: none;
  padding: 10px 16px;
  border-right: 1px solid var(--line);
}
.rail button {
  position: relative;
  display: grid;
  grid-template-rows: 2.7rem auto auto;
  flex: none;
  min-width: 8rem;
  padding: 4px 12px 3px;
  border: 0;
  border-right: 1px solid var(--line);
  border-top: 3px solid transparent;
  border-bottom: 3px solid transparent;
  border-radius: 0;
}
.rail button:focus-visible {
  outline-offset: -3px;
}
.rail button:hover {
  background: var(--sheet);
}
svg {
  align-self: end;
  margin-bottom: 3px;
}
path {
  fill: var(--silhouette);
}
.rail button[aria-pressed='true'] {
  background: var(--deep-wash);
  border-top-color: var(--deep);
}
[aria-pressed='true'] path {
  fill: var(--deep);
}
.rail button.changed {
  border-bottom-color: var(--ochre);
}
.name {
  display: flex;
  justify-content: space-between;
  gap: 10px;
  line-height: 1.3;
}
.mark {
  position: absolute;
  top: 4px;
  right: 10px;
  font-weight: 700;
}
@media (max-width: 1240px) {
  .head {
    width: 9.5rem;
  }
}
</style>
