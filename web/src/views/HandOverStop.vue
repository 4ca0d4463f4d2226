<script setup lang="ts">
import { onMounted, ref, shallowRef, watch } from 'vue'

import { api, Problem, type Export, type FileFormat } from '../api/client'
import LedgerPanel from '../components/LedgerPanel.vue'
import ProblemNote from '../components/ProblemNote.vue'
import StopLayout from '../components/StopLayout.vue'
import { useJob } from '../stores/job'

const job = useJob()
const square = ref(false)
const made = shallowRef<Export[]>([])
const problem = shallowRef<Problem | null>(null)
const FORMATS: { format: FileFormat; name: string; about: string }[] = [
  { format: 'svg', name: 'SVG', about: 'millimetres, 1:1, a group for each operation' },
  { format: 'dxf', name: 'DXF', about: 'release R2000, a layer for each operation' },
  { format: 'dxf-r12', name: 'DXF, old', about: 'release R12, for readers that know nothing newer' },
]

onMounted(load)
watch(() => job.design?.moves, load)

async function load(): Promise<void> {
  made.value = await api.exports(job.design!.id)
}

async function write(format: FileFormat): Promise<void> {
  problem.value = null
  try {
    const files = await api.export(job.design!.id, format, square.value)
    for (const file of files) download(file)
    await load()
  } catch (error) {
    if (!(error instanceof Problem)) throw error
    problem.value = error
  }
}

function download(file: Export): void {
  const link = document.createElement('a')
  link.href = api.fileAddress(file.id)
  link.download = file.file_name
  link.click()
}

const time = (text: string) =>
  new Date(text).toLocaleString(undefined, { dateStyle: 'medium', timeStyle: 'short' })
</script>

<template>
  <StopLayout
    title="Hand over"
    :about="`${job.design!.sheets.length} sheet${job.design!.sheets.length > 1 ? 's' : ''}, one file each`"
  >
    <div class="out">
      <p v-if="job.proof && !job.proof.fits" class="warn">
        The proof found something to mend. Look at Prove before you cut.
      </p>
      <ul class="formats">
        <li v-for="{ format, name, about } in FORMATS" :key="format">
          <button class="strong" @click="write(format)">Download {{ name }}</button>
          <span>
            <span v-for="sheet in job.design!.sheets" :key="sheet.number" class="file">{{
              sheet.file_names[format]
            }}</span>
            <span class="second small">{{ about }}</span>
          </span>
        </li>
      </ul>
      <label class="square">
        <input v-model="square" type="checkbox" /> add a 100 mm reference square on a layer that is not cut
      </label>
      <ProblemNote v-if="problem" :problem="problem" />
      <h2>Handed over so far</h2>
      <p v-if="!made.length" class="second">
        Nothing yet. Every file that is written is kept here, byte for byte.
      </p>
      <ul class="made">
        <li v-for="file in made" :key="file.id">
          <a :href="api.fileAddress(file.id)" :download="file.file_name">{{ file.file_name }}</a>
          <span class="small second figure">{{ (file.bytes / 1024).toFixed(1) }} kB</span>
          <span class="small second">{{ time(file.made) }}</span>
        </li>
      </ul>
    </div>
    <template #ledger>
      <LedgerPanel
        v-for="sheet in job.design!.sheets"
        :key="sheet.number"
        :subject="`sheet:${sheet.number}`"
        :title="`Sheet ${sheet.number}`"
      />
      <LedgerPanel subject="basis" title="Cut for" />
    </template>
  </StopLayout>
</template>

<style scoped>
.out {
  padding: 6px 22px;
  overflow-y: auto;
}
.formats li {
  display: grid;
  grid-template-columns: 170px 1fr;
  align-items: center;
  gap: 14px;
  margin-bottom: 8px;
}
.file {
  display: block;
}
.square {
  display: block;
  margin: 12px 0 26px;
}
h2 {
  font-size: 15px;
  font-weight: 600;
  margin-bottom: 6px;
}
.made li {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 80px 160px;
  gap: 12px;
  padding: 5px 0;
  border-top: 1px solid var(--line);
}
a {
  color: var(--deep);
}
.warn {
  margin-bottom: 14px;
  padding: 6px 12px;
  background: var(--bad-wash);
  border-left: 3px solid var(--bad);
}
input {
  accent-color: var(--deep);
}
</style>
