<script setup lang="ts">
import { computed } from 'vue'

import type { Design, Part } from '../api/client'
import { freeName } from '../steps'
import { useJob } from '../stores/job'
import TextField from './TextField.vue'

/** The selected part itself: its name, its board, and what may be done with the whole of it. */
const props = defineProps<{ part: Part }>()
const job = useJob()
const path = computed(() => `parts/${props.part.id}`)
const ids = computed(() => job.design!.parts.map(({ id }) => id))
const index = computed(() => ids.value.indexOf(props.part.id))

/** As the document has it: what an edit puts. */
function documentOf(part: Part): Record<string, unknown> {
  const { title, board, steps } = part
  return { title, board, loose: 1, steps: steps.map(({ document }) => document) }
}

async function copy(): Promise<void> {
  const id = freeName(props.part.id.replace(/-\d+$/, ''), ids.value)
  const value = { ...documentOf(props.part), title: `${props.part.title}, copy` }
  if (await job.edit({ verb: 'put', path: `parts/${id}`, value, after: props.part.id }))
    job.selected = `part:${id}`
}

async function remove(): Promise<void> {
  if (await job.edit({ verb: 'drop', path: path.value })) job.selected = ''
}

function move(by: -1 | 1): void {
  const rest = ids.value.filter((id) => id !== props.part.id)
  void job.edit({ verb: 'move', path: path.value, after: rest[index.value + by - 1] ?? '' })
}

const stands = computed(() => job.design!.standings.filter(({ part }) => part === props.part.id).length)
const boards = computed<Design['boards']>(() => job.design!.boards)
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
    <label v-if="boards.length > 1">
      Board
      <select
        class="boxed"
        :value="part.board"
        @change="job.put(`${path}/board`, ($event.target as HTMLSelectElement).value)"
      >
        <option v-for="one in boards" :key="one.id" :value="one.id">{{ one.title }}</option>
      </select>
    </label>
    <p class="acts">
      <button class="link small" @click="copy">Copy</button>
      <button class="link small" :disabled="index === 0" @click="move(-1)">Move up</button>
      <button class="link small" :disabled="index === ids.length - 1" @click="move(1)">Move down</button>
      <button
        class="link small"
        :title="stands ? 'with its places and their joints' : undefined"
        @click="remove"
      >
        Remove
      </button>
    </p>
  </section>
</template>

<style scoped>
section {
  display: grid;
  gap: 8px;
  padding: 14px 18px 2px;
}
label {
  color: var(--second);
}
.acts {
  margin-left: -4px;
}
</style>
