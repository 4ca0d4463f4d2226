<script setup lang="ts">
import { computed } from 'vue'

import { freeName } from '../steps'
import { useJob } from '../stores/job'
import TextField from './TextField.vue'

/** The boards of the job: which one is looked at; one may be added, renamed, and removed where no part is of it. */
const job = useJob()
const boards = computed(() => job.design!.boards)
const used = computed(() => job.design!.parts.some(({ board }) => board === job.board?.id))

async function add(): Promise<void> {
  const ids = boards.value.map(({ id }) => id)
  const id = freeName('board', ids).replace('-', '_')
  if (await job.edit({ verb: 'put', path: `boards/${id}`, value: { title: `Board ${ids.length + 1}` } }))
    job.chosenBoard = id
}
</script>

<template>
  <section class="boards">
    <span v-if="boards.length > 1" role="group" aria-label="Boards">
      <button
        v-for="one in boards"
        :key="one.id"
        class="plain small"
        :aria-pressed="one.id === job.board?.id"
        @click="job.chosenBoard = one.id"
      >
        {{ one.title }}
      </button>
    </span>
    <template v-if="boards.length > 1 && job.board">
      <TextField
        class="title"
        :field="`boards/${job.board.id}/title`"
        label="What it is for"
        hide-label
        :text="job.board.title"
        :problem="job.problemAt(`boards/${job.board.id}/title`)"
        words
        @commit="job.put(`boards/${job.board!.id}/title`, $event)"
        @clear="job.problem = null"
      />
      <button
        class="link small"
        :disabled="used"
        :title="used ? 'parts are of it' : undefined"
        @click="job.edit({ verb: 'drop', path: `boards/${job.board!.id}` })"
      >
        Remove
      </button>
    </template>
    <button class="link small" @click="add">Add another board to this job</button>
  </section>
</template>

<style scoped>
.boards {
  display: flex;
  align-items: center;
  gap: 8px;
  grid-column: 1 / -1;
}
.title {
  width: 150px;
}
[aria-pressed='true'] {
  border-color: var(--deep);
  background: var(--deep-wash);
}
</style>
