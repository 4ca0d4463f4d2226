<script setup lang="ts">
import { computed, ref, watch } from 'vue'

import type { Mate } from '../api/client'
import type { Box } from '../geometry/view'
import { useJob } from '../stores/job'
import { useSettings } from '../stores/settings'
import { lengthText } from '../units'
import DrawingFrame from './DrawingFrame.vue'

/** A cross-section of one finger in its socket, to scale: the two members and the gap between them.
 *
 * The slider runs from the thinnest to the thickest reading of the board that stands in the socket.
 */
const props = defineProps<{ mate: Mate }>()
const job = useJob()
const settings = useSettings()
const drawing = ref<InstanceType<typeof DrawingFrame> | null>(null)
/** Of the board that stands in the socket: the second one's. */
const basis = computed(() => {
  const part = job.design!.parts.find(({ id }) => id === props.mate.second.part)
  return (job.design!.boards.find(({ id }) => id === part?.board) ?? job.design!.boards[0]!).basis
})
const board = ref(0)

watch([() => basis.value.thickness, () => props.mate.id], () => (board.value = basis.value.thickness), {
  immediate: true,
})

const figures = computed(() => {
  const rows = job.design!.ledger[`joint:${props.mate.id}`] ?? []
  const value = (key: string) => rows.find((row) => row.key === key)?.value ?? 0
  return { finger: value('finger'), socket: value('socket'), clearance: value('clearance') }
})
const gap = computed(() => figures.value.clearance / 2)
const proud = computed(() => props.mate.depth - board.value)
const box = computed<Box>(() => {
  const { socket } = figures.value
  return [-socket * 0.55, -props.mate.depth * 1.1, socket * 1.55, props.mate.depth * 1.8]
})
const verdict = computed(() => {
  const off = Math.abs(proud.value)
  if (off < 0.005) return 'flush'
  return `${lengthText(off, settings.unit)} ${proud.value > 0 ? 'below the fingers' : 'proud of the fingers'}`
})

/** Close enough to see the gap beside the finger. */
function lookAtGap(): void {
  const reach = Math.max(Math.abs(gap.value) * 6, 0.06)
  const { depth } = props.mate
  drawing.value?.lookAt([-reach, depth - 1.4 * reach, reach, depth + 0.6 * reach])
}
</script>

<template>
  <section class="loupe" aria-label="Loupe">
    <header>
      <b>Loupe · one finger</b>
      <span>
        <button class="link small" @click="lookAtGap">see the gap</button>
        <button class="link small" @click="drawing?.fitAll()">see the finger</button>
      </span>
    </header>
    <DrawingFrame
      ref="drawing"
      class="picture"
      :box="box"
      label="Cross-section of the joint"
      :readout="false"
    >
      <template #default>
        <!-- The member with the socket, cut through its face. -->
        <path
          class="first"
          :d="`M${-figures.socket} ${mate.depth}H0V0H${figures.socket}V${mate.depth}H${2 * figures.socket}V${-2 * mate.depth}H${-figures.socket}Z`"
        />
        <!-- The other board's finger, end grain, as thick as the slider says. -->
        <rect class="second" :x="gap" y="0" :width="figures.finger" :height="board" />
      </template>
      <template #over="{ at, pxPerMm }">
        <text
          v-if="figures.finger * pxPerMm < 2000"
          :x="at([figures.socket / 2, 0])[0]"
          :y="at([0, board / 2])[1] + 4"
        >
          {{ lengthText(figures.finger, settings.unit) }}
        </text>
        <g class="ochre gap">
          <line
            :x1="at([gap / 2, 0])[0]"
            :x2="at([gap / 2, 0])[0]"
            :y1="at([0, mate.depth])[1] - 18"
            :y2="at([0, mate.depth])[1] - 3"
          />
          <text :x="at([gap / 2, 0])[0]" :y="at([0, mate.depth])[1] - 23"
            >gap {{ lengthText(gap, settings.unit, 3) }}</text
          >
        </g>
      </template>
    </DrawingFrame>
    <label class="slider small">
      <span class="second">board {{ lengthText(basis.thin, settings.unit) }}</span>
      <input
        v-model.number="board"
        type="range"
        :min="basis.thin"
        :max="basis.thick"
        step="any"
        aria-label="thickness of the board"
      />
      <span class="second">{{ lengthText(basis.thick, settings.unit) }}</span>
    </label>
    <p class="small">
      <span class="figure">{{ lengthText(board, settings.unit) }}</span> thick: its face is
      <b>{{ verdict }}</b>; sideways it is <b>{{ mate.fit.verdict }}</b>, whatever the thickness.
      <span v-if="mate.fit.wants" class="ochre">It {{ mate.fit.wants }}.</span>
    </p>
  </section>
</template>

<style scoped>
.loupe {
  display: grid;
  grid-template-rows: auto 1fr auto auto;
  min-height: 0;
  border: 1.5px solid var(--ink);
  background: var(--panel);
  box-shadow: 0 2px 10px #0002;
}
header {
  display: flex;
  justify-content: space-between;
  padding: 7px 12px 3px;
}
.first {
  fill: var(--board);
  stroke: var(--ink);
}
.second {
  color: var(--second);
}
rect.second {
  fill: var(--deep-wash);
  stroke: var(--deep);
  stroke-width: 1.5;
}
text {
  text-anchor: middle;
  fill: var(--ink);
  font-family: var(--figures);
  font-size: 12px;
}
.gap text {
  fill: var(--ochre-text);
}
.gap line {
  stroke: var(--ochre);
  stroke-width: 1.5;
}
.slider {
  display: grid;
  grid-template-columns: auto 1fr auto;
  gap: 8px;
  align-items: center;
  padding: 8px 12px 0;
}
input {
  accent-color: var(--deep);
  min-width: 0;
}
p {
  padding: 2px 12px 10px;
}
b {
  font-weight: 500;
}
</style>
