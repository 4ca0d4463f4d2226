<script setup lang="ts">
import type { Operation, ProfileValues } from '../api/client'

/** How files are written: layers and their order, and how the drawing lies. Every answer makes a new profile. */
const props = defineProps<{ profile: ProfileValues; titles: Record<string, string> }>()
const emit = defineEmits<{ change: [profile: ProfileValues] }>()

const change = (values: Partial<ProfileValues>) => emit('change', { ...props.profile, ...values })
const valueOf = (event: Event) => (event.target as HTMLInputElement | HTMLSelectElement).value
const isOn = (event: Event) => (event.target as HTMLInputElement).checked

function changeLayer(operation: Operation, values: Partial<ProfileValues['layers'][string]>): void {
  const layer = props.profile.layers[operation]!
  change({ layers: { ...props.profile.layers, [operation]: { ...layer, ...values } } })
}

/** Swaps an operation with the one before it. */
function earlier(index: number): void {
  const order = [...props.profile.order]
  ;[order[index - 1], order[index]] = [order[index]!, order[index - 1]!]
  change({ order })
}

const ORIGINS: Record<ProfileValues['origin'], string> = {
  plain: 'as the format has it',
  'lower left': 'lower left',
  'upper left': 'upper left',
  'lower right': 'lower right',
  'upper right': 'upper right',
  centre: 'centre',
}
</script>

<template>
  <div class="profile">
    <table>
      <thead>
        <tr class="small second">
          <th>in this order</th>
          <th>layer</th>
          <th>colour</th>
          <th>in the file</th>
          <th />
        </tr>
      </thead>
      <tbody>
        <tr v-for="(operation, index) in profile.order" :key="operation">
          <td><i class="swatch" :class="operation" /> {{ titles[operation] }}</td>
          <td>
            <input
              class="boxed"
              :aria-label="`layer of ${operation}`"
              :value="profile.layers[operation]!.name"
              @change="changeLayer(operation, { name: valueOf($event) })"
            />
          </td>
          <td>
            <input
              type="color"
              :aria-label="`colour of ${operation}`"
              :value="profile.layers[operation]!.colour"
              @change="changeLayer(operation, { colour: valueOf($event) })"
            />
          </td>
          <td>
            <input
              type="checkbox"
              :aria-label="`write ${operation}`"
              :checked="profile.layers[operation]!.include"
              @change="changeLayer(operation, { include: isOn($event) })"
            />
          </td>
          <td>
            <button
              class="link small"
              :disabled="index === 0"
              :aria-label="`do ${operation} earlier`"
              @click="earlier(index)"
            >
              ↑
            </button>
          </td>
        </tr>
      </tbody>
    </table>
    <div class="options">
      <label>
        One file for each
        <select
          class="boxed"
          :value="profile.split"
          @change="change({ split: valueOf($event) as ProfileValues['split'] })"
        >
          <option value="sheet">sheet</option>
          <option value="part">part</option>
          <option value="operation">operation on a sheet</option>
        </select>
      </label>
      <label>
        Unit of the file
        <select
          class="boxed"
          :value="profile.unit"
          @change="change({ unit: valueOf($event) as ProfileValues['unit'] })"
        >
          <option value="mm">millimetres</option>
          <option value="in">inches</option>
        </select>
      </label>
      <label>
        Coordinates are 0 at
        <select
          class="boxed"
          :value="profile.origin"
          @change="change({ origin: valueOf($event) as ProfileValues['origin'] })"
        >
          <option v-for="(title, name) in ORIGINS" :key="name" :value="name">{{ title }}</option>
        </select>
      </label>
      <label>
        Engraved areas
        <select
          class="boxed"
          :value="profile.engrave"
          @change="change({ engrave: valueOf($event) as ProfileValues['engrave'] })"
        >
          <option value="outline">as outlines</option>
          <option value="filled">filled (SVG, PDF)</option>
          <option value="hatch">as hatch lines</option>
        </select>
      </label>
      <label v-if="profile.engrave === 'hatch'">
        Hatch lines apart, mm
        <input
          class="boxed figure"
          data-field="hatch_mm"
          :value="profile.hatch_mm"
          @change="change({ hatch_mm: valueOf($event) })"
        />
      </label>
      <label>
        Lead-ins, mm
        <input
          class="boxed figure"
          data-field="lead_in_mm"
          :value="profile.lead_in_mm"
          @change="change({ lead_in_mm: valueOf($event) })"
        />
      </label>
      <label>
        Lines, mm wide
        <input
          class="boxed figure"
          data-field="stroke_mm"
          :value="profile.stroke_mm"
          @change="change({ stroke_mm: valueOf($event) })"
        />
      </label>
    </div>
    <p class="ticks">
      <label>
        <input
          type="checkbox"
          :checked="profile.reference_square"
          @change="change({ reference_square: isOn($event) })"
        />
        a 100 mm reference square
      </label>
      <label>
        <input type="checkbox" :checked="profile.labels" @change="change({ labels: isOn($event) })" />
        part names, not cut
      </label>
      <label>
        <input type="checkbox" :checked="profile.y_down" @change="change({ y_down: isOn($event) })" />
        y grows downwards (DXF)
      </label>
    </p>
  </div>
</template>

<style scoped>
table {
  border-collapse: collapse;
  width: 100%;
}
th {
  text-align: left;
  font-weight: 400;
}
td {
  padding: 2px 10px 2px 0;
  border-top: 1px solid var(--line);
}
td .boxed {
  width: 130px;
  padding: 1px 6px;
}
.options {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(170px, 1fr));
  gap: 8px 14px;
  margin: 12px 0;
  color: var(--second);
}
.ticks {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 20px;
}
input[type='checkbox'] {
  accent-color: var(--deep);
}
input[type='color'] {
  width: 34px;
  height: 20px;
  padding: 0;
  border: 1px solid var(--line);
  background: none;
}
</style>
