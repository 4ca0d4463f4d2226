<script setup lang="ts">
import { computed } from 'vue'

import type { Design } from '../api/client'
import { namesOf, placing, useSheet } from '../composables/useSheet'
import { useJob } from '../stores/job'
import DrawingFrame from './DrawingFrame.vue'
import PartPiece from './PartPiece.vue'
import { usePicking } from '../composables/usePicking'

/** One sheet with its parts where they will be cut. */
const props = defineProps<{ sheet: Design['sheets'][number] }>()
const job = useJob()
const { onPick, onMenu } = usePicking()

const { parts, placed } = useSheet(() => props.sheet)
const margin = computed(
  () => job.design!.ledger[`sheet:${props.sheet.number}`]?.find(({ key }) => key === 'margin')?.value ?? 0,
)

const names = computed(() => namesOf(placed.value, parts.value))
</script>

<template>
  <DrawingFrame
    :box="[0, 0, sheet.width, sheet.height]"
    :label="`Sheet ${sheet.number}`"
    :names="names"
    @pick="onPick"
    @menu="onMenu"
  >
    <template #default>
      <rect class="sheet" x="0" y="0" :width="sheet.width" :height="sheet.height" />
      <rect
        class="margin"
        :x="margin"
        :y="margin"
        :width="Math.max(sheet.width - 2 * margin, 0)"
        :height="Math.max(sheet.height - 2 * margin, 0)"
      />
      <rect
        v-for="(one, i) in sheet.keep_outs"
        :key="`clear-${i}`"
        class="keep-out"
        :x="one.box[0]"
        :y="one.box[1]"
        :width="one.box[2] - one.box[0]"
        :height="one.box[3] - one.box[1]"
      >
        <title>Keep-out area: {{ one.name }}</title>
      </rect>
      <PartPiece
        v-for="one in placed"
        :key="`${one.part}-${one.copy_number}`"
        :part="parts.get(one.part)!"
        :transform="placing(one)"
        :name="`${parts.get(one.part)!.title} ${one.copy_number}`"
      />
    </template>
  </DrawingFrame>
</template>

<style scoped>
.sheet {
  fill: var(--sheet);
  stroke: var(--ink);
  stroke-width: 1.5;
}
.margin {
  fill: none;
  stroke: var(--second);
  stroke-dasharray: 2 4;
  pointer-events: none;
}
.keep-out {
  fill: var(--ochre-wash);
  stroke: var(--ochre);
  stroke-dasharray: 4 3;
}
</style>
