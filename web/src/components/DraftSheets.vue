<script setup lang="ts">
import { computed } from 'vue'

import type { Draft } from '../api/client'
import { useSay } from '../composables/useSay'

/** The sheets that a draft would be cut from, each as it would lie, and what it all takes. */
const props = defineProps<{ draft: Draft; board: string; left: number | null }>()
const say = useSay()
const SHOWN = 2
const sheets = computed(() => props.draft.sheets.slice(0, SHOWN))
const first = computed(() => props.draft.sheets[0])
</script>

<template>
  <section v-if="first" class="sheets" aria-label="What it needs">
    <h2>
      It needs {{ draft.sheets.length }} sheet{{ draft.sheets.length === 1 ? '' : 's' }}
      <span class="second"
        >of {{ board }}, <span class="figure">{{ say.size(first.width, first.height) }}</span>
        <template v-if="left !== null">
          ·
          <span :class="{ ochre: left < draft.sheets.length }">the rack has {{ left }}</span></template
        >
      </span>
    </h2>
    <div class="drawn">
      <svg
        v-for="(sheet, i) in sheets"
        :key="i"
        :viewBox="`-1 ${-sheet.height - 1} ${sheet.width + 2} ${sheet.height + 2}`"
        role="img"
        :aria-label="`Sheet ${i + 1} with ${sheet.parts.length} parts`"
      >
        <rect class="sheet" x="0" :y="-sheet.height" :width="sheet.width" :height="sheet.height" />
        <g transform="scale(1 -1)">
          <path
            v-for="(part, n) in sheet.parts"
            :key="n"
            :d="part.path"
            :transform="`translate(${part.x} ${part.y}) rotate(${part.angle})`"
            fill-rule="evenodd"
          >
            <title>{{ part.title }}</title>
          </path>
        </g>
      </svg>
    </div>
    <p>
      <b>{{ draft.pieces }}</b> part{{ draft.pieces === 1 ? '' : 's' }},
      <b>{{ say.number(100 * draft.used, 0) }}</b> % used · cut
      <b>{{ say.far(draft.cut) }}</b>
      in about <b>{{ say.time(draft.seconds) }}</b><span v-if="!draft.own_speeds" class="small second"
        >, at default speeds for such a machine</span
      >
    </p>
  </section>
</template>

<style scoped>
.sheets {
  display: grid;
  gap: 6px;
}
h2 .second {
  font-weight: 400;
}
.drawn {
  display: flex;
  gap: 8px;
}
svg {
  flex: 1;
  min-width: 0;
  max-height: 11.5rem;
}
.sheet {
  fill: var(--sheet);
  stroke: var(--ink);
  stroke-width: 1.5;
  vector-effect: non-scaling-stroke;
}
path {
  fill: var(--board);
  stroke: var(--ink);
  stroke-width: 0.8;
  vector-effect: non-scaling-stroke;
}
</style>
