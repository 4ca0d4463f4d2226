<script setup lang="ts">
import { computed } from 'vue'

import type { Card } from '../api/client'
import { inRows } from '../geometry/rows'
import { useSettings } from '../stores/settings'
import { inUnit, lengthText } from '../units'

/** One job: its parts in silhouette, and what it is made of. */
const props = defineProps<{ job: Card }>()
defineEmits<{ archive: [] }>()
const settings = useSettings()

const laid = computed(() =>
  inRows(
    props.job.silhouettes.map(({ box }) => box),
    12,
    1.9,
  ),
)
const changed = computed(() =>
  new Date(props.job.changed).toLocaleDateString(undefined, { day: 'numeric', month: 'short' }),
)
</script>

<template>
  <article>
    <RouterLink :to="`/jobs/${job.id}/shape`">
      <svg
        :viewBox="`${laid.box[0]} ${-laid.box[3]} ${laid.box[2] - laid.box[0]} ${laid.box[3] - laid.box[1]}`"
        aria-hidden="true"
      >
        <path
          v-for="(part, i) in job.silhouettes"
          :key="i"
          :d="part.path"
          :transform="`scale(1 -1) translate(${laid.places[i]![0]} ${laid.places[i]![1]})`"
          fill-rule="evenodd"
        />
      </svg>
      <b>{{ job.name }}</b>
      <span class="small second">
        <template v-for="board in job.boards" :key="board.name"
          >{{ board.name }} <span class="figure">{{ lengthText(board.thickness, settings.unit) }}</span>
          {{ settings.unit }} ·
        </template>
        revision {{ job.revision }} · {{ changed }}
      </span>
      <span v-if="job.news.length" class="small ochre"
        >Changed in the workshop since: {{ job.news.join(', ') }}</span
      >
      <span v-if="job.problem" class="small bad"
        >cannot be computed: {{ inUnit(job.problem.why, settings.unit) }}</span
      >
      <span v-if="job.variant_of" class="small second">variant of {{ job.variant_of }}</span>
    </RouterLink>
    <button class="link small" :aria-label="`Archive ${job.name}`" @click="$emit('archive')">Archive</button>
  </article>
</template>

<style scoped>
article {
  position: relative;
  background: var(--panel);
  border: 1px solid var(--line);
}
article:hover {
  border-color: var(--deep);
}
a {
  display: grid;
  gap: 2px;
  padding: 16px 16px 12px;
  color: inherit;
  text-decoration: none;
}
svg {
  height: 128px;
  width: 100%;
  margin-bottom: 10px;
}
path {
  fill: color-mix(in srgb, var(--end-grain) 80%, var(--second));
}
a:hover path,
a:focus-visible path {
  fill: var(--deep);
}
b {
  font-weight: 600;
  font-size: 16px;
}
button {
  position: absolute;
  right: 8px;
  bottom: 8px;
  color: var(--second);
  background: var(--panel);
}
.bad {
  color: var(--bad);
}
</style>
