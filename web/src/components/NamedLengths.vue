<script setup lang="ts">
import { computed, nextTick, ref, useTemplateRef } from 'vue'

import type { NamedLength, Part } from '../api/client'
import { useSay } from '../composables/useSay'
import TextField from '../kit/TextField.vue'
import { useJob } from '../stores/job'
import LengthField from './LengthField.vue'
import SaveRecipe from './SaveRecipe.vue'

/** The named lengths of a job: what each is, where it comes from, and which steps of the part follow it. */
const props = defineProps<{ part: Part | null; lit: ReadonlySet<string> }>()
const emit = defineEmits<{ light: [names: readonly string[]] }>()
const job = useJob()
const say = useSay()
const open = ref('')
const adding = ref(false)
const saving = ref(false)
const newName = ref('')
/** A length of that name would be overwritten. */
const taken = ref(false)
const nameField = useTemplateRef<HTMLInputElement>('nameField')
const MARKS = { measured: '●', chosen: '◇', computed: '=' } as const
const WORDS = { measured: 'measured', chosen: 'chosen', computed: 'computed' } as const
/** As many as there is room for. */
const TEETH = 14

const lengths = computed(() => job.design!.lengths)
const steps = computed(() => props.part?.steps ?? [])

/** Of the steps of the part: which say the name, and which follow by way of others. */
function teeth(one: NamedLength): { on: boolean; direct: boolean; title: string }[] {
  return steps.value.slice(0, TEETH).map(({ id, title }) => {
    const path = `parts/${props.part!.id}/steps/${id}`
    const direct = one.direct.includes(path)
    return { on: direct || one.by_way.includes(path), direct, title }
  })
}
const others = (one: NamedLength) => {
  const mine = `parts/${props.part?.id}/`
  return [...one.direct, ...one.by_way].filter((path) => !path.startsWith(mine)).length
}
const typedOf = (one: NamedLength) => say.edit(one.text, one.unit)
/** With several boards the same word is not the same length everywhere. */
const whose = (one: NamedLength): string => {
  const boards = job.design!.boards
  const word = ['thickness', 'clearance'].find(
    (name) => one.name === name || new RegExp(`(?<![.\\w])${name}\\b`).test(one.text),
  )
  const [first, other] = boards
  if (!word || !first || !other) return ''
  return `In a named length “${word}” is that of ${first.title}; in a part’s own numbers it is that of the part’s board. Of ${other.title}: “${other.id}.${word}”.`
}
const field = (one: NamedLength) => `dimensions/${one.name}`

async function add(): Promise<void> {
  const name = newName.value.trim()
  taken.value = lengths.value.some((one) => one.name === name)
  if (taken.value) return
  const made = await job.put(`dimensions/${name}`, {
    title: name.replaceAll('_', ' ') || name,
    length: '10',
    chosen: true,
  })
  if (!made) return
  adding.value = false
  newName.value = ''
  open.value = name
}
async function begin(): Promise<void> {
  adding.value = true
  await nextTick()
  nameField.value?.focus()
}
const isRecipes = (one: NamedLength) => one.field.startsWith('answers/')
async function rename(one: NamedLength, to: string): Promise<void> {
  if (await job.edit({ verb: 'rename', path: field(one), to })) open.value = to
}
</script>

<template>
  <section aria-label="Named lengths">
    <header>
      <h2>Named lengths</h2>
      <span v-if="part" class="small second">steps of {{ part.title }} that follow</span>
    </header>
    <ul @mouseleave="emit('light', [])">
      <li
        v-for="one in lengths"
        :key="one.name"
        :class="{ lit: lit.has(one.name) }"
        @mouseenter="emit('light', [one.name])"
      >
        <button
          type="button"
          class="row"
          :aria-expanded="open === one.name"
          :aria-label="`Named length ${one.name}, ${say.length(one.value ?? 0)} ${say.unit}, ${WORDS[one.source]}`"
          @focus="emit('light', [one.name])"
          @click="open = open === one.name ? '' : one.name"
        >
          <i class="mark" :class="one.source" aria-hidden="true">{{ MARKS[one.source] }}</i>
          <span class="called">{{ one.name }}</span>
          <span class="figure value">{{ one.value === null ? one.text : say.length(one.value!) }}</span>
          <span class="comb" aria-hidden="true">
            <i
              v-for="(tooth, i) in teeth(one)"
              :key="i"
              :class="{ on: tooth.on, by: tooth.on && !tooth.direct }"
              :title="tooth.title"
              >{{ tooth.on ? i + 1 : '·' }}</i
            >
          </span>
        </button>
        <div v-if="open === one.name" class="more">
          <p v-if="one.source === 'measured' || !one.field" class="small second">
            {{ one.source === 'measured' ? 'Measured on the board.' : 'Chosen with the board.' }} Use “{{
              one.name
            }}” in any number.
          </p>
          <template v-else>
            <LengthField
              :field="one.field"
              label="Length"
              :text="typedOf(one)"
              @commit="job.put(one.field, $event)"
            />
            <TextField
              v-if="!isRecipes(one)"
              label="Name in arithmetic"
              :field="field(one)"
              :text="one.name"
              :problem="job.problemAt(field(one))"
              @commit="rename(one, $event)"
              @clear="job.problem = null"
            />
          </template>
          <p v-if="whose(one)" class="small second">{{ whose(one) }}</p>
          <p class="small second">
            {{ one.direct.length }} say it by name, {{ one.by_way.length }} follow by way of others<template
              v-if="part && others(one)"
              >; {{ others(one) }} of them not in this part</template
            >.
            <ElButton
              v-if="one.field && !isRecipes(one)"
              link
              size="small"
              @click="job.edit({ verb: 'drop', path: field(one) })"
              >Remove</ElButton
            >
          </p>
        </div>
      </li>
    </ul>
    <form v-if="adding" class="new" @submit.prevent="add">
      <label class="small second" for="new-length">Name: letters, digits and _, used in arithmetic</label>
      <input
        id="new-length"
        ref="nameField"
        v-model="newName"
        autocomplete="off"
        @keydown.esc.stop="adding = false"
      />
      <p v-if="taken" class="small bad" role="alert">
        There is a length called “{{ newName.trim() }}” already. Choose another name.
      </p>
      <p
        v-else-if="job.problem && job.problem.field.startsWith('dimensions/')"
        class="small bad"
        data-field="dimensions"
      >
        {{ say.sentence(job.problem.why) }} {{ say.sentence(job.problem.fix) }}
      </p>
    </form>
    <p class="acts">
      <ElButton v-if="!adding" link size="small" @click="begin">Add a named length</ElButton>
      <ElButton
        v-if="lengths.some(({ source }) => source === 'chosen')"
        link
        size="small"
        @click="saving = true"
        >Save this job as a recipe</ElButton
      >
    </p>
    <SaveRecipe v-if="saving" @close="saving = false" />
  </section>
</template>

<style scoped>
section {
  padding-top: 10px;
}
header {
  display: flex;
  justify-content: space-between;
  align-items: baseline;
  padding: 4px 18px;
}
.row {
  display: grid;
  grid-template-columns: 1.1rem minmax(4.5rem, 1fr) auto minmax(0, auto);
  gap: 6px;
  align-items: baseline;
  width: 100%;
  min-height: 1.9rem;
  padding: 1px 18px;
  border: 0;
  background: none;
  color: var(--ink);
  text-align: left;
  cursor: pointer;
}
.lit > .row,
.row:hover {
  background: var(--deep-wash);
}
.mark {
  font-style: normal;
  color: var(--deep);
}
.mark.chosen {
  color: var(--ochre-text);
}
.called {
  overflow: hidden;
  text-overflow: ellipsis;
  font-weight: 500;
}
.value {
  font-weight: 700;
}
.comb {
  display: flex;
  overflow: hidden;
  font: 400 0.8rem var(--figures);
  color: var(--second);
}
.comb i {
  min-width: 0.95rem;
  text-align: center;
  font-style: normal;
}
.comb .on {
  background: var(--deep-wash);
  color: var(--deep);
  font-weight: 700;
}
.comb .by {
  font-weight: 400;
  text-decoration: underline dotted;
}
.more,
.new {
  display: grid;
  gap: 6px;
  padding: 4px 18px 8px 40px;
}
.new input {
  min-height: 2rem;
  padding: 2px 8px;
  border: 1px solid var(--edge);
  background: var(--sheet);
  color: var(--ink);
}
.acts {
  padding: 4px 18px;
}
</style>
