<script setup lang="ts">
import { computed } from 'vue'

import type { Card } from '../api/client'
import { inRows } from '../geometry/rows'
import { useSay } from '../composables/useSay'
import ProofTag from './ProofTag.vue'

/** One job: its parts in silhouette, and what it is made of. */
const props = defineProps<{ job: Card }>()
defineEmits<{ archive: [] }>()
const say = useSay()

const laid = computed(() =>
  inRows(
    props.job.silhouettes.map(({ box }) => box),
    12,
    1.9,
  ),
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
          >{{ board.name }} <span class="figure">{{ say.length(board.thickness) }}</span> {{ say.unit }} ·
        </template>
        revision {{ job.revision }} · {{ say.date(job.changed) }}
      </span>
      <span v-if="job.news.length" class="small ochre"
        >Measured again or changed in the workshop since: {{ job.news.join(', ') }}</span
      >
      <span v-if="job.problem" class="small bad"
        >Cannot be computed: {{ say.sentence(job.problem.why) }}</span
      >
      <span v-if="job.variant_of" class="small second">Variant of {{ job.variant_of }}</span>
      <span><ProofTag v-if="!job.problem" :proof="job.proof" :before="job.proved_before" /></span>
    </RouterLink>
    <ElButton class="away" link size="small" :aria-label="`Archive ${job.name}`" @click="$emit('archive')"
      >Archive</ElButton
    >
  </article>
</template>

<style scoped>
article {
  display: flex;
  flex-direction: column;
  height: 100%;
  background: var(--panel);
  border: 1px solid var(--line);
}
article:hover {
  border-color: var(--deep);
}
a {
  display: grid;
  gap: 3px;
  padding: 16px 16px 6px;
  color: inherit;
  text-decoration: none;
}
svg {
  height: 8.5rem;
  width: 100%;
  margin-bottom: 10px;
}
path {
  fill: var(--silhouette);
}
a:hover path,
a:focus-visible path {
  fill: var(--deep);
}
b {
  overflow-wrap: anywhere;
  font-weight: 600;
  font-size: 1.07rem;
}
.away {
  align-self: flex-end;
  margin: auto 14px 8px;
}
</style>
