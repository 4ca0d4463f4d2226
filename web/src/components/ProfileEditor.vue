<script setup lang="ts">
import { computed } from 'vue'

import type { Operation, Problem, ProfileValues } from '../api/client'
import ChoiceField from '../kit/ChoiceField.vue'
import FlagField from '../kit/FlagField.vue'
import type { Option } from '../kit/options'
import TextField from '../kit/TextField.vue'
import { useSay } from '../composables/useSay'
import ProfileLayer from './ProfileLayer.vue'

/** How files are written: what is done in which order, and how the drawing lies. Every answer makes a new profile. */
const props = defineProps<{ profile: ProfileValues; problem: Problem | null }>()
const emit = defineEmits<{ change: [profile: ProfileValues] }>()
const say = useSay()

const change = (values: Partial<ProfileValues>) => emit('change', { ...props.profile, ...values })

function changeLayer(operation: Operation, values: Partial<ProfileValues['layers'][string]>): void {
  const layer = props.profile.layers[operation]!
  change({ layers: { ...props.profile.layers, [operation]: { ...layer, ...values } } })
}

function move(operation: Operation, to: number): void {
  const order = props.profile.order.filter((one) => one !== operation)
  order.splice(to, 0, operation)
  change({ order })
}

const CHOICES: { name: 'split' | 'unit' | 'origin' | 'engrave'; label: string; options: Option[] }[] = [
  {
    name: 'split',
    label: 'One file for each',
    options: [
      { value: 'sheet', label: 'Sheet' },
      { value: 'part', label: 'Part' },
      { value: 'operation', label: 'Operation on a sheet' },
    ],
  },
  {
    name: 'unit',
    label: 'Unit of the file',
    options: [
      { value: 'mm', label: 'Millimetres' },
      { value: 'in', label: 'Inches' },
    ],
  },
  {
    name: 'origin',
    label: 'Origin',
    options: [
      { value: 'plain', label: 'Format default' },
      { value: 'lower left', label: 'Lower left' },
      { value: 'upper left', label: 'Upper left' },
      { value: 'lower right', label: 'Lower right' },
      { value: 'upper right', label: 'Upper right' },
      { value: 'centre', label: 'Centre' },
    ],
  },
  {
    name: 'engrave',
    label: 'Engraved areas',
    options: [
      { value: 'outline', label: 'As outlines' },
      { value: 'filled', label: 'Filled', detail: 'SVG and PDF' },
      { value: 'hatch', label: 'As hatch lines' },
    ],
  },
]
const LENGTHS = computed(() =>
  [
    { name: 'hatch_mm' as const, label: 'Hatch lines apart', shown: props.profile.engrave === 'hatch' },
    { name: 'lead_in_mm' as const, label: 'Lead-ins', shown: true },
    { name: 'stroke_mm' as const, label: 'Line width', shown: true },
  ].filter(({ shown }) => shown),
)
const FLAGS = [
  { name: 'reference_square', label: 'A 100 mm reference square' },
  { name: 'labels', label: 'Part names, not cut' },
  { name: 'y_down', label: 'y grows downwards (DXF)' },
] as const

/** The profile's lengths are mm; what is typed counts in the unit that is shown. */
const lengthOf = (value: number | string) => (typeof value === 'number' ? say.short(value) : value)
const typedIn = (text: string) => (say.unit === 'in' && /^[\d\s.,/]+$/.test(text) ? `${text} in` : text)
</script>

<template>
  <ol aria-label="In this order">
    <ProfileLayer
      v-for="(operation, index) in profile.order"
      :key="operation"
      :operation="operation"
      :layer="profile.layers[operation]!"
      :index="index"
      :count="profile.order.length"
      @change="changeLayer(operation, $event)"
      @move="move"
    />
  </ol>
  <p class="small second">Drag a line, or press Alt with Up or Down on it, to change the order.</p>
  <div class="options">
    <ChoiceField
      v-for="{ name, label, options } in CHOICES"
      :key="name"
      :label="label"
      :options="options"
      :model-value="profile[name]"
      @update:model-value="change({ [name]: $event })"
    />
    <TextField
      v-for="{ name, label } in LENGTHS"
      :key="name"
      :label="label"
      :field="name"
      :text="lengthOf(profile[name])"
      :unit="say.unit"
      :problem="problem?.field === name ? problem : null"
      @commit="change({ [name]: typedIn($event) })"
    />
  </div>
  <div class="flags">
    <FlagField
      v-for="{ name, label } in FLAGS"
      :key="name"
      :label="label"
      :model-value="profile[name]"
      @update:model-value="change({ [name]: $event })"
    />
  </div>
</template>

<style scoped>
ol {
  margin-bottom: 4px;
}
.options {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(11rem, 1fr));
  gap: 8px 14px;
  margin: 12px 0;
}
.flags {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 20px;
}
</style>
