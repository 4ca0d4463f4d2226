<script setup lang="ts">
import { computed, defineAsyncComponent, onMounted, ref, shallowRef } from 'vue'

import { api, type Machine } from '../api/client'
import { useJob } from '../stores/job'
import { useSettings } from '../stores/settings'
import { shortText } from '../units'
import LengthField from './LengthField.vue'
import type { Question } from './RecordDialog.vue'

const RecordDialog = defineAsyncComponent(() => import('./RecordDialog.vue'))

/** Which machine, and how much its beam or tool takes away. */
const job = useJob()
const settings = useSettings()
const machines = shallowRef<Machine[]>([])

const kinds = shallowRef<string[]>([])
const adding = ref(false)

onMounted(async () => {
  machines.value = await api.machines()
  kinds.value = (await api.choices()).machine_kinds
})

const questions = computed<Question[]>(() => [
  { name: 'name', label: 'Name', start: '' },
  { name: 'kind', label: 'Kind', start: 'laser', choices: kinds.value },
  { name: 'kerf', label: `Kerf, ${settings.unit}`, start: '', help: 'the beam’s or the tool’s width' },
  { name: 'bed_width', label: `Bed width, ${settings.unit}`, start: '' },
  { name: 'bed_height', label: `Bed height, ${settings.unit}`, start: '' },
])

async function add({ name, kind, kerf, bed_width, bed_height }: Record<string, string>): Promise<void> {
  const added = await api.addMachine({
    name: name!,
    kind: kind!,
    kerf: kerf!,
    bed_width: bed_width!,
    bed_height: bed_height!,
    unit: settings.unit,
  })
  machines.value = await api.machines()
  await job.edit({ machine: added.id })
}

function idNow(): number | '' {
  return machines.value.find((one) => one.document.name === job.design!.basis.machine.name)?.id ?? ''
}
</script>

<template>
  <label class="second">
    Machine
    <select
      class="boxed"
      :value="idNow()"
      @change="job.edit({ machine: Number(($event.target as HTMLSelectElement).value) })"
    >
      <option v-for="one in machines" :key="one.id" :value="one.id">
        {{ one.document.name }}, {{ shortText(one.document.bed_width, settings.unit) }} ×
        {{ shortText(one.document.bed_height, settings.unit) }} {{ settings.unit }}
      </option>
    </select>
  </label>
  <button class="link small" @click="adding = true">add a machine</button>
  <RecordDialog
    v-if="adding"
    title="A new machine"
    :questions="questions"
    :save="add"
    @close="adding = false"
  />
  <LengthField
    class="kerf"
    field="kerf"
    :label="`Kerf, in ${settings.unit}`"
    :text="shortText(job.design!.basis.machine.kerf, settings.unit)"
    @commit="job.edit({ kerf: $event })"
  />
  <p class="small second">What the beam or tool removes. It moves the path, never the part.</p>
</template>

<style scoped>
.kerf {
  margin: 10px 0 4px;
}
</style>
