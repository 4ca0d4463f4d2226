<script setup lang="ts">
import { computed, onMounted, ref, shallowRef } from 'vue'

import { api, type Choices, type Corner, type Mark } from '../api/client'
import { KIND_TITLES, newMark, typed, type MarkKind } from '../marks'
import { useJob } from '../stores/job'
import { useSettings } from '../stores/settings'
import { editText } from '../units'
import LengthField from './LengthField.vue'
import MarkEditor from './MarkEditor.vue'
import ProblemNote from './ProblemNote.vue'

/** What is drawn on the selected part, and how its corners are cut. */
const job = useJob()
const settings = useSettings()
const choices = shallowRef<Choices | null>(null)
const open = ref('')
const part = computed(() => job.design?.parts.find(({ id }) => job.selected === `part:${id}`))
const marks = computed(() => part.value?.marks.map(({ document }) => document) ?? [])
const CORNERS: Corner['corner'][] = ['bottom-left', 'bottom-right', 'top-right', 'top-left']
const free = computed(() =>
  CORNERS.filter((name) => !part.value?.corners.some(({ corner }) => corner === name)),
)

onMounted(async () => (choices.value = await api.choices()))

const put = (next: Mark[]) => job.edit({}, { [part.value!.id]: { marks: next } })
const putCorners = (next: Corner[]) => job.edit({}, { [part.value!.id]: { corners: next } })

async function add(kind: MarkKind): Promise<void> {
  const taken = marks.value.map(({ id }) => id)
  const mark = newMark(kind, part.value!.box, taken)
  if (await put([...marks.value, mark])) open.value = mark.id
}

function about(mark: Mark): string {
  const count = mark.columns * mark.rows
  return `${count > 1 ? `${count} × ` : ''}${mark.kind === 'text' ? `“${mark.text}”` : (KIND_TITLES[mark.kind] ?? mark.kind).toLowerCase()}`
}

const field = (index: number) => `${part.value!.id}.marks[${index}]`
const cornerField = (index: number) => `${part.value!.id}.corners[${index}].size`
const lost = computed(() => (part.value ? job.problemAt(`${part.value.id}.marks`) : null))
const at = (index: number) => job.problemAt(field(index))
const changeCorner = (index: number, values: Partial<Corner>) =>
  putCorners(part.value!.corners.map((one, i) => (i === index ? { ...one, ...values } : one)))

function cornerText(corner: Corner): string {
  const { text, unit } = typed(corner.size)
  return editText(text, unit, settings.unit)
}
</script>

<template>
  <section v-if="part && choices">
    <h3>Drawn on {{ part.title.toLowerCase() }}</h3>
    <p v-if="!marks.length" class="small second about">
      Nothing yet. Add holes, lettering, score lines or pockets; they move with the part.
    </p>
    <ul>
      <li v-for="(mark, index) in marks" :key="mark.id">
        <button class="row" :aria-expanded="open === mark.id" @click="open = open === mark.id ? '' : mark.id">
          <i class="swatch" :class="mark.operation" /> {{ about(mark) }}
          <span class="small second">{{ choices.operations[mark.operation]?.toLowerCase() }}</span>
        </button>
        <ProblemNote v-if="at(index)" class="note" :data-field="field(index)" :problem="at(index)!" />
        <MarkEditor
          v-if="open === mark.id"
          :mark="mark"
          :field="field(index)"
          :choices="choices"
          @change="put(marks.map((one, i) => (i === index ? $event : one)))"
          @remove="put(marks.filter((_, i) => i !== index))"
        />
      </li>
    </ul>
    <ProblemNote v-if="lost" class="note" :problem="lost" />
    <p class="adds">
      <button v-for="(title, kind) in KIND_TITLES" :key="kind" class="plain small" @click="add(kind)">
        + {{ title.toLowerCase() }}
      </button>
    </p>
    <h3>Corners</h3>
    <ul>
      <li v-for="(cut, index) in part.corners" :key="cut.corner" class="corner">
        <span>{{ cut.corner.replace('-', ' ') }}</span>
        <select
          class="boxed"
          :aria-label="`shape of the ${cut.corner} corner`"
          :value="cut.shape"
          @change="
            changeCorner(index, { shape: ($event.target as HTMLSelectElement).value as Corner['shape'] })
          "
        >
          <option value="round">rounded</option>
          <option value="chamfer">cut off</option>
        </select>
        <LengthField
          :field="cornerField(index)"
          label="size"
          hide-label
          :text="cornerText(cut)"
          @commit="changeCorner(index, { size: { text: $event, unit: settings.unit } })"
        />
        <button
          class="link small"
          :aria-label="`keep the ${cut.corner} corner square`"
          @click="putCorners(part.corners.filter((_, i) => i !== index))"
        >
          ×
        </button>
      </li>
    </ul>
    <p class="adds">
      <button
        v-for="name in free"
        :key="name"
        class="plain small"
        @click="
          putCorners([...part.corners, { corner: name, shape: 'round', size: { text: '3', unit: 'mm' } }])
        "
      >
        + {{ name.replace('-', ' ') }}
      </button>
    </p>
  </section>
</template>

<style scoped>
section {
  padding-top: 6px;
}
h3 {
  padding: 10px 18px 4px;
  font-size: 15.5px;
  font-weight: 600;
}
.about {
  padding: 0 18px 6px;
}
li {
  border-top: 1px solid var(--line);
}
.row {
  display: flex;
  align-items: baseline;
  gap: 8px;
  width: 100%;
  padding: 5px 18px 5px 12px;
  border: 0;
  border-radius: 0;
}
.row:hover {
  background: var(--deep-wash);
}
.row .second {
  margin-left: auto;
}
.note {
  margin: 0 18px 6px 29px;
}
.adds {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  padding: 8px 18px;
  border-top: 1px solid var(--line);
}
.corner {
  display: grid;
  grid-template-columns: 92px 1fr 74px auto;
  align-items: center;
  gap: 8px;
  padding: 4px 10px 4px 18px;
}
</style>
