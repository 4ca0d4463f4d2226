<script setup lang="ts">
import { computed } from 'vue'

import { freeName } from '../steps'
import { useJob } from '../stores/job'
import TextField from '../kit/TextField.vue'

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
    <ElSegmented
      v-if="boards.length > 1"
      aria-label="Boards"
      :model-value="job.board!.id"
      :options="boards.map(({ id, title }) => ({ value: id, label: title }))"
      @change="job.chosenBoard = String($event)"
    />
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
      <ElButton
        link
        size="small"
        :disabled="used"
        :title="used ? 'Parts are cut from it' : undefined"
        @click="job.edit({ verb: 'drop', path: `boards/${job.board!.id}` })"
      >
        Remove
      </ElButton>
    </template>
    <ElButton link size="small" @click="add">Add another board to this job</ElButton>
  </section>
</template>

<style scoped>
.boards {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px;
  grid-column: 1 / -1;
}
.title {
  width: 11rem;
}
</style>
