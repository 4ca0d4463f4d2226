<script setup lang="ts">
import { computed } from 'vue'

import type { Card } from '../api/client'
import { useSay } from '../composables/useSay'
import { stopOf } from '../visited'
import RouteComb from './RouteComb.vue'
import StandingPicture from './StandingPicture.vue'

/** One job on the table: its picture stands on the edge, its words are below it. */
const props = defineProps<{ job: Card; scale: number; height: number; first?: boolean; seen: boolean }>()
defineEmits<{ menu: [at: HTMLElement] }>()
const say = useSay()
const ACTS: Record<string, string> = {
  measure: 'Measure',
  shape: 'Shape',
  join: 'Join',
  'lay-out': 'Lay out',
  prove: 'Prove',
  'hand-over': 'Hand over',
}

/** Where something wants a look, there; else where the maker was last. */
const opens = computed(() => {
  const { stands, id } = props.job
  const stop = stands?.tone === 'look' ? stands.next : (stopOf(id) ?? stands?.next ?? 'shape')
  return `/jobs/${id}/${stop}`
})
const next = computed(() => props.job.stands?.next ?? 'measure')
const state = computed(() => {
  const { stands, problem, pictured } = props.job
  if (problem) return { words: `Cannot be computed: ${say.sentence(problem.why)}`, tone: 'bad' }
  if (!stands || !pictured) return { words: 'Its picture is made the next time', tone: 'plain' }
  const words = [say.sentence(stands.line), stands.at ? say.moment(stands.at) : ''].filter(Boolean).join(', ')
  return { words, tone: stands.tone }
})
const file = computed(() => {
  const last = props.job.last_file
  if (!last) return 'no file yet'
  const older = last.revision === props.job.revision ? '' : `of revision ${last.revision}`
  const said = last.proof ? say.sentence(last.proof.sentence) : 'not read back'
  return [last.format.toUpperCase(), last.receiver, say.date(last.made), last.outcome || said, older]
    .filter(Boolean)
    .join(', ')
})
const boards = computed(() =>
  props.job.boards.map(({ name, thickness }) => `${name} ${say.length(thickness)}`).join(' · '),
)
</script>

<template>
  <article :class="{ first }" :aria-label="job.name">
    <div class="stand" :style="{ height: `${height}px` }" :data-scale="scale">
      <StandingPicture v-if="seen && job.pictured" :of="job" :scale="scale" />
      <ul v-if="first && job.sheets" class="needs small">
        <li>{{ job.sheets }} sheet{{ job.sheets === 1 ? '' : 's' }}</li>
        <li class="second">{{ say.number(100 * job.used, 0) }} % used</li>
        <li v-if="job.seconds !== null">about {{ say.time(job.seconds) }}</li>
      </ul>
    </div>
    <div class="words">
      <h2>
        <RouterLink class="open" :to="opens">{{ job.name }}</RouterLink>
        <RouteComb v-if="job.stops.length" :stops="job.stops" />
      </h2>
      <p class="small second">{{ boards || 'no board' }}</p>
      <p class="small state" :class="state.tone">
        {{ state.words }}
        <template v-if="job.drawn">; drawn as in revision {{ job.drawn }}</template>
      </p>
      <p v-if="job.news.length" class="small ochre">
        Changed in the workshop since: {{ job.news.join(', ') }}
      </p>
      <p class="small second">
        {{ file }}<template v-if="job.variant_of"> · variant of {{ job.variant_of }}</template>
      </p>
      <p class="acts">
        <RouterLink class="next" :to="`/jobs/${job.id}/${next}`">{{ ACTS[next] }}</RouterLink>
        <ElButton
          link
          class="more"
          aria-haspopup="menu"
          :aria-label="`More for ${job.name}`"
          @click="$emit('menu', $event.currentTarget as HTMLElement)"
          >More</ElButton
        >
      </p>
    </div>
  </article>
</template>

<style scoped>
article {
  position: relative;
  display: grid;
  grid-template-rows: auto 1fr;
}
.stand {
  display: flex;
  align-items: end;
  justify-content: space-between;
  gap: 8px;
}
.needs {
  padding: 0 2px 10px;
  text-align: right;
  white-space: nowrap;
}
.words {
  position: relative;
  display: grid;
  align-content: start;
  padding: 2.1rem 0 8px;
}
.words p {
  overflow-wrap: anywhere;
}
h2 {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 2px 10px;
  min-width: 0;
}
.open {
  min-height: 24px;
  color: inherit;
  overflow-wrap: anywhere;
  text-decoration: none;
}
/* The picture and the words all open the job; acts lie above that. */
.open::after {
  position: absolute;
  inset: 0;
  top: v-bind('`-${height}px`');
  content: '';
}
.state {
  font-weight: 500;
}
.state.good {
  color: var(--deep);
}
.state.look {
  color: var(--ochre-text);
}
.state.bad {
  color: var(--bad);
}
.acts {
  position: relative;
  display: flex;
  align-items: center;
  gap: 14px;
  min-height: 2.2rem;
  padding-top: 5px;
  width: fit-content;
}
/* Of the others it shows where the pointer or the focus is; by touch, always. */
@media (hover: hover) {
  article:not(.first) .acts {
    position: absolute;
    right: 0;
    bottom: 4px;
    padding: 0 4px 0 14px;
    background: var(--sheet);
    opacity: 0;
  }
  article:hover .acts,
  article:focus-within .acts {
    opacity: 1;
  }
}
.next {
  min-height: 24px;
  padding: 3px 0;
  color: var(--deep);
  font-weight: 500;
}
.first {
  margin: 0;
  background: linear-gradient(var(--deep-wash), var(--deep-wash)) -10px 0 / calc(100% + 20px) no-repeat;
  box-shadow:
    -10px 0 0 var(--deep-wash),
    10px 0 0 var(--deep-wash);
}
.first .next {
  padding: 6px 18px;
  background: var(--deep);
  border-radius: 3px;
  color: var(--on-deep);
  font-weight: 600;
  text-decoration: none;
}
.first :deep(path.face),
.first :deep(path.back),
article:hover :deep(path.face),
article:hover :deep(path.back),
article:focus-within :deep(path.face),
article:focus-within :deep(path.back) {
  fill: var(--deep-wash);
  stroke: var(--deep);
}
.first :deep(path.edges),
article:hover :deep(path.edges),
article:focus-within :deep(path.edges) {
  fill: color-mix(in srgb, var(--deep) 30%, var(--deep-wash));
  stroke: var(--deep);
}
</style>
