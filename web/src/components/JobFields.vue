<script setup lang="ts">
import { reactive, ref } from 'vue'

import { useSay } from '../composables/useSay'
import PlainField from '../kit/PlainField.vue'
import { useJob } from '../stores/job'
import LengthField from './LengthField.vue'

/** What is of the whole job: how many sets are made of it, and named lengths of one's own. */
const job = useJob()
const say = useSay()
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
    <LengthField
      class="sets"
      field="sets"
      label="Sets to make"
      plain
      :text="String(job.design!.sets)"
      @commit="job.put('sets', $event)"
    />
    <form v-if="adding" @submit.prevent="add">
      <PlainField v-model="length.title" label="Name" words :most="40" />
      <PlainField v-model="length.value" label="Length" :unit="say.unit" />
      <p class="acts">
        <ElButton size="small" native-type="submit">Add</ElButton>
        <ElButton link size="small" @click="adding = false">Cancel</ElButton>
      </p>
    </form>
    <ElButton v-else link size="small" @click="adding = true">Add a named length</ElButton>
  </section>
</template>

<style scoped>
section {
  padding: 8px 18px 10px 29px;
}
.sets {
  max-width: 9rem;
  margin-bottom: 6px;
}
form {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 8px;
}
form p {
  grid-column: 1 / -1;
}
</style>
