<script setup lang="ts">
import { onMounted, shallowRef } from 'vue'

import { api, type Machine } from '../api/client'
import { useJob } from '../stores/job'
import { useSettings } from '../stores/settings'
import { shortText } from '../units'
import LengthField from './LengthField.vue'

/** Which machine, and how much its beam or tool takes away. */
const job = useJob()
const settings = useSettings()
const machines = shallowRef<Machine[]>([])

onMounted(async () => (machines.value = await api.machines()))

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
