<script setup lang="ts">
import { computed, onMounted, ref, shallowRef } from 'vue'

import { api, type Choices } from '../api/client'
import { freeName, type Document } from '../steps'
import { useJob } from '../stores/job'
import AnswerField from './AnswerField.vue'

/** The joint that is selected: how it is made, between what, and removing it; and adding one between any two members. */
interface Member {
  placement: string
  edge: string
}
interface JointDocument {
  id: string
  title: string
  first: Member
  second: Member
  how?: Document & { kind: string }
}

const job = useJob()
const choices = shallowRef<Choices | null>(null)
const adding = ref(false)
const changing = ref(false)
const joints = computed(() => job.design!.joints as unknown as JointDocument[])
const joint = computed(() => joints.value.find(({ id }) => job.selected === `joint:${id}`))
const path = computed(() => `joints/${joint.value?.id}`)
const how = computed(() => joint.value?.how ?? { kind: Object.keys(choices.value?.joints ?? {})[0] ?? '' })
const fields = computed(() => choices.value?.fields[`joint/${how.value.kind}`] ?? [])
const placements = computed(() => job.design!.standings.map(({ placement, part }) => ({ placement, part })))

onMounted(async () => (choices.value = await api.choices()))

const valueOf = (event: Event) => (event.target as HTMLSelectElement).value
const words = (edge: string) =>
  edge === 'face'
    ? 'its face'
    : edge
        .replace(/^blank\./, '')
        .replace('.', ', ')
        .replaceAll('-', ' ')
/** A joint that cannot be made is there to be changed. */
const open = computed(
  () => joint.value && (changing.value || !job.design!.mates.some(({ id }) => id === joint.value!.id)),
)

function edgesOf(placement: string): string[] {
  const id = placements.value.find((one) => one.placement === placement)?.part
  return [...(job.design!.parts.find((part) => part.id === id)?.edges ?? []), 'face']
}

/** Another placement brings its own edges: the one of the same name is kept if it has it. */
function setPlacement(end: 'first' | 'second', placement: string): void {
  const edges = edgesOf(placement)
  const edge = joint.value![end].edge
  void job.put(`${path.value}/${end}`, { placement, edge: edges.includes(edge) ? edge : edges[0] })
}

/** Another kind may want the second member's face instead of an edge. */
function setKind(kind: string): void {
  const { placement, edge } = joint.value!.second
  const wanted = choices.value!.joints[kind]!.second
  const other = wanted === 'face' ? 'face' : edge === 'face' ? edgesOf(placement)[0]! : edge
  void job.edit(
    { verb: 'put', path: `${path.value}/how`, value: { kind } },
    { verb: 'put', path: `${path.value}/second/edge`, value: other },
  )
}

function titleOf(placement: string): string {
  const id = placements.value.find((one) => one.placement === placement)?.part
  return job.design!.parts.find((part) => part.id === id)?.title ?? placement
}

async function add(kind: string): Promise<void> {
  adding.value = false
  const [first, second] = placements.value
  if (!first || !second) return
  const id = freeName('joint', joints.value.map((one) => one.id)) // prettier-ignore
  const member = ({ placement }: { placement: string }, edge = edgesOf(placement)[0]) => ({ placement, edge })
  const value = {
    title: `${titleOf(first.placement)} and ${titleOf(second.placement).toLowerCase()}`,
    first: member(first),
    second: member(second, choices.value!.joints[kind]!.second === 'face' ? 'face' : undefined),
    how: { kind },
  }
  if (await job.edit({ verb: 'put', path: `joints/${id}`, value })) {
    job.selected = `joint:${id}`
    changing.value = true
  }
}

async function remove(): Promise<void> {
  if (await job.edit({ verb: 'drop', path: path.value })) changing.value = false
}

async function swap(): Promise<void> {
  const { first, second } = joint.value!
  await job.edit(
    { verb: 'put', path: `${path.value}/first`, value: second },
    { verb: 'put', path: `${path.value}/second`, value: first },
  )
}
</script>

<template>
  <section v-if="choices" class="joint">
    <form v-if="joint && open" @submit.prevent>
      <label class="wide">
        Kind
        <select class="boxed" :value="how.kind" @change="setKind(valueOf($event))">
          <option v-for="(one, kind) in choices.joints" :key="kind" :value="kind">{{ one.title }}</option>
        </select>
      </label>
      <template v-for="end in ['first', 'second'] as const" :key="end">
        <label>
          {{ end === 'first' ? 'First' : 'Second' }}
          <select
            class="boxed"
            :data-field="`${path}/${end}/placement`"
            :value="joint[end].placement"
            @change="setPlacement(end, valueOf($event))"
          >
            <option v-for="one in placements" :key="one.placement" :value="one.placement">
              {{ one.placement }}
            </option>
          </select>
        </label>
        <label>
          at
          <select
            class="boxed"
            :data-field="`${path}/${end}/edge`"
            :value="joint[end].edge"
            @change="job.put(`${path}/${end}/edge`, valueOf($event))"
          >
            <option v-for="edge in edgesOf(joint[end].placement)" :key="edge" :value="edge">
              {{ words(edge) }}
            </option>
          </select>
        </label>
      </template>
      <AnswerField
        v-for="info in fields"
        :key="info.name"
        class="wide"
        :info="info"
        :path="`${path}/how`"
        :value="how[info.name]"
      />
      <p class="wide actions">
        <button type="button" class="link small" @click="swap">Swap first and second</button>
        <button type="button" class="link small" @click="remove">Remove</button>
      </p>
    </form>
    <p v-if="placements.length > 1" class="add">
      <button
        v-if="joint"
        type="button"
        class="link small"
        :aria-expanded="!!open"
        @click="changing = !changing"
      >
        {{ open ? 'Close' : 'Change this joint' }}
      </button>
      <button v-if="!adding" type="button" class="link small" @click="adding = true">Add a joint</button>
      <template v-for="(one, kind) in adding ? choices.joints : {}" :key="kind">
        <button type="button" class="plain small" @click="add(String(kind))">{{ one.title }}</button>
      </template>
      <button v-if="adding" type="button" class="link small" @click="adding = false">Cancel</button>
    </p>
  </section>
</template>

<style scoped>
form {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 6px 12px;
  padding: 8px 18px 4px;
  color: var(--second);
}
.wide {
  grid-column: 1 / -1;
}
.actions,
.add {
  display: flex;
  flex-wrap: wrap;
  gap: 12px;
}
.add {
  padding: 8px 18px 2px;
}
</style>
