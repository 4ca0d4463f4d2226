<script setup lang="ts">
import { reactive, ref } from 'vue'

import { useJob } from '../stores/job'
import { useSettings } from '../stores/settings'
import ProblemNote from './ProblemNote.vue'

/** What is of the whole job: how many sets are made of it, and named lengths of one's own. */
const job = useJob()
const settings = useSettings()
const adding = ref(false)
const length = reactive({ title: '', value: '' })

/** A name that arithmetic can use, from what it is called. */
function nameOf(title: string): string {
  const plain = title
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '_')
    .replace(/^_+|_+$/g, '')
  return /^[a-z]/.test(plain) ? plain.slice(0, 40) : `length_${plain}`.slice(0, 40)
}

async function add(): Promise<void> {
  const path = `dimensions/${nameOf(length.title)}`
  const value = { title: length.title, length: length.value, chosen: true }
  if (!(await job.edit({ verb: 'put', path, value }))) return
  adding.value = false
  Object.assign(length, { title: '', value: '' })
}
</script>

<template>
  <section>
    <label class="sets">
      <span>Sets to make</span>
      <input
        class="boxed figure"
        inputmode="numeric"
        data-field="sets"
        :value="job.design!.sets"
        @change="job.put('sets', ($event.target as HTMLInputElement).value)"
      />
    </label>
    <ProblemNote v-if="job.problemAt('sets')" class="note" :problem="job.problemAt('sets')!" />
    <form v-if="adding" @submit.prevent="add">
      <label>Name <input v-model="length.title" class="boxed" maxlength="40" /></label>
      <label>Length, {{ settings.unit }} <input v-model="length.value" class="boxed figure" /></label>
      <p>
        <button class="plain small">Add</button>
        <button type="button" class="link small" @click="adding = false">Cancel</button>
      </p>
    </form>
    <button v-else class="link small" @click="adding = true">Add a named length</button>
  </section>
</template>

<style scoped>
section {
  padding: 4px 18px 10px 25px;
}
.sets {
  display: grid;
  grid-template-columns: 1fr 74px;
  align-items: center;
  padding: 6px 0;
}
.sets span {
  padding-left: 4px;
}
form {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 8px;
  color: var(--second);
}
form p {
  grid-column: 1 / -1;
}
.note {
  margin-bottom: 6px;
}
</style>
