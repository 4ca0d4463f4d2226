<script setup lang="ts">
import { computed } from 'vue'

import type { Part } from '../api/client'
import { useActs } from '../composables/useActs'
import ChoiceField from '../kit/ChoiceField.vue'
import TextField from '../kit/TextField.vue'
import { useJob } from '../stores/job'
import ActButtons from './ActButtons.vue'

/** The selected part itself: its name, its board, and what can be done with the whole of it. */
const props = defineProps<{ part: Part }>()
const job = useJob()
const acts = useActs()
const path = computed(() => `parts/${props.part.id}`)
const boards = computed(() => job.design!.boards.map(({ id, title }) => ({ value: id, label: title })))
const edge = computed(() => {
  const side = props.part.sides[job.picked.edge]
  return side ? { name: job.picked.edge, length: Math.hypot(side[2] - side[0], side[3] - side[1]) } : null
})
</script>

<template>
  <section>
    <TextField
      :field="`${path}/title`"
      label="Part"
      :text="part.title"
      :problem="job.problemAt(`${path}/title`)"
      words
      @commit="job.put(`${path}/title`, $event)"
      @clear="job.problem = null"
    />
    <ChoiceField
      v-if="boards.length > 1"
      label="Board"
      :field="`${path}/board`"
      :options="boards"
      :model-value="part.board"
      @update:model-value="job.put(`${path}/board`, $event)"
    />
    <ActButtons :acts="acts.ofPart(part)" />
    <slot :edge="edge" />
  </section>
</template>

<style scoped>
section {
  display: grid;
  gap: 8px;
  padding: 14px 18px 2px;
}
</style>
