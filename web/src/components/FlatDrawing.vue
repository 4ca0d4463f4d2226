<script setup lang="ts">
import { computed } from 'vue'

import type { Part } from '../api/client'
import { inRows } from '../geometry/rows'
import { useSay } from '../composables/useSay'
import { useJob } from '../stores/job'
import DrawingFrame from './DrawingFrame.vue'
import PartPiece from './PartPiece.vue'
import { usePicking } from '../composables/usePicking'

/** All kinds of parts, flat, at one scale. */
const job = useJob()
const say = useSay()
const { onPick, onMenu } = usePicking()
const GAP = 22

const parts = computed(() => job.design!.parts)
const laid = computed(() =>
  inRows(
    parts.value.map(({ box }) => box),
    GAP,
    1.5,
  ),
)

const hasMarks = (part: Part) => part.steps.length > 1
</script>

<template>
  <DrawingFrame :box="laid.box" label="Parts, flat" :readout="false" @pick="onPick" @menu="onMenu">
    <template #default>
      <PartPiece
        v-for="(part, i) in parts"
        v-show="!job.hidden.has(part.id)"
        :key="part.id"
        :part="part"
        :transform="`translate(${laid.places[i]![0]} ${laid.places[i]![1]})`"
      />
    </template>
    <template #over="{ at, pxPerMm }">
      <g v-for="(part, i) in parts" :key="part.id" class="words">
        <text
          v-if="!hasMarks(part)"
          :x="at([laid.places[i]![0] + (part.box[0] + part.box[2]) / 2, 0])[0]"
          :y="at([0, laid.places[i]![1] + (part.box[1] + part.box[3]) / 2])[1]"
        >
          {{ part.title }}
        </text>
        <text
          v-if="!hasMarks(part) && (part.box[2] - part.box[0]) * pxPerMm > 130"
          class="figure second"
          :x="at([laid.places[i]![0] + (part.box[0] + part.box[2]) / 2, 0])[0]"
          :y="at([0, laid.places[i]![1] + (part.box[1] + part.box[3]) / 2])[1] + 20"
        >
          {{ say.size(part.box[2] - part.box[0], part.box[3] - part.box[1]) }}
        </text>
      </g>
    </template>
  </DrawingFrame>
</template>

<style scoped>
.words {
  pointer-events: none;
  text-anchor: middle;
  fill: var(--ink);
  font-weight: 500;
}
.words .second {
  fill: var(--second);
  font-weight: 400;
  font-size: 0.85rem;
}
</style>
