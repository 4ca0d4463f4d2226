<script setup lang="ts">
import type { Label, Name } from '../geometry/names'

/** Names of parts on a drawing, where they were placed. */
defineProps<{ names: readonly Name[]; labels: ReadonlyMap<string, Label> }>()
</script>

<template>
  <g class="names">
    <template v-for="one in names" :key="one.key">
      <path v-if="one.leader" :d="`M${one.leader[0].join(' ')}L${one.leader[1].join(' ')}`" />
      <text
        :x="one.at[0]"
        :y="one.at[1] + 5"
        :text-anchor="one.anchor"
        :class="{ selected: labels.get(one.key)?.selected }"
      >
        {{ one.text
        }}<tspan v-if="one.note" class="note" :class="{ wrong: labels.get(one.key)?.wrong }">{{
          one.note
        }}</tspan>
      </text>
    </template>
  </g>
</template>

<style scoped>
.names {
  pointer-events: none;
  font-size: 15px;
  font-weight: 500;
}
text {
  /* Clear of whatever is cut below it. */
  paint-order: stroke;
  stroke: var(--under-names, var(--board));
  stroke-width: 3px;
  stroke-linejoin: round;
  fill: var(--ink);
  white-space: pre;
}
.selected {
  fill: var(--deep);
}
.note {
  fill: var(--second);
  font-weight: 400;
}
.note.wrong {
  fill: var(--bad);
  font-weight: 700;
}
path {
  fill: none;
  stroke: var(--second);
}
</style>
