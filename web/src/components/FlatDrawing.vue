<script setup lang="ts">
import { computed } from 'vue'

import type { Part } from '../api/client'
import type { Label } from '../geometry/names'
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

const names = computed<Label[]>(() =>
  parts.value.flatMap((part, i) => {
    if (job.hidden.has(part.id)) return []
    const [x, y] = laid.value.places[i]!
    const there = ([left, low, right, high]: Part['box']): Part['box'] => [
      left + x,
      low + y,
      right + x,
      high + y,
    ]
    const note = ` ${say.size(part.box[2] - part.box[0], part.box[3] - part.box[1])}`
    const room = part.rooms[0]
    return [{ key: part.id, text: part.title, note, box: there(part.box), room: room && there(room) }]
  }),
)
</script>

<template>
  <DrawingFrame
    :box="laid.box"
    label="Parts, flat"
    :readout="false"
    :names="names"
    @pick="onPick"
    @menu="onMenu"
  >
    <template #default>
      <PartPiece
        v-for="(part, i) in parts"
        v-show="!job.hidden.has(part.id)"
        :key="part.id"
        :part="part"
        :transform="`translate(${laid.places[i]![0]} ${laid.places[i]![1]})`"
      />
    </template>
  </DrawingFrame>
</template>
