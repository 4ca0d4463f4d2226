<script setup lang="ts">
import { computed, onMounted, ref } from 'vue'

import { useActs } from '../composables/useActs'
import ChoiceField from '../kit/ChoiceField.vue'
import { edgeWords, freeName } from '../steps'
import { useChoices } from '../stores/choices'
import { useJob } from '../stores/job'
import ActButtons from './ActButtons.vue'
import AnswerField from './AnswerField.vue'

/** The joint that is selected: how it is made, between what, and removing it; and adding one between any two members. */
const job = useJob()
const acts = useActs()
const shared = useChoices()
const choices = computed(() => shared.choices)
const adding = ref(false)
const changing = ref(false)
const joints = computed(() => job.design!.joints)
const joint = computed(() => joints.value.find(({ id }) => id === job.picked.joint))
const path = computed(() => `joints/${joint.value?.id}`)
const how = computed(() => joint.value?.how ?? { kind: Object.keys(choices.value?.joints ?? {})[0] ?? '' })
const fields = computed(() => choices.value?.fields[`joint/${how.value.kind}`] ?? [])
const placements = computed(() => job.design!.standings.map(({ placement, part }) => ({ placement, part })))

onMounted(shared.load)

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

/** Another kind may want a member's face instead of an edge, or the reverse. */
function setKind(kind: string): void {
  const wanted = choices.value!.joints[kind]!
  const at = (end: 'first' | 'second') => {
    const { placement, edge } = joint.value![end]
    const value = wanted[end] === 'face' ? 'face' : edge === 'face' ? edgesOf(placement)[0]! : edge
    return { verb: 'put' as const, path: `${path.value}/${end}/edge`, value }
  }
  void job.edit({ verb: 'put', path: `${path.value}/how`, value: { kind } }, at('first'), at('second'))
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
    first: member(first, choices.value!.joints[kind]!.first === 'face' ? 'face' : undefined),
    second: member(second, choices.value!.joints[kind]!.second === 'face' ? 'face' : undefined),
    how: { kind },
  }
  if (await job.edit({ verb: 'put', path: `joints/${id}`, value })) {
    job.pick('joint', id)
    changing.value = true
  }
}

const edgeOptions = (placement: string) =>
  edgesOf(placement).map((edge) => ({ value: edge, label: edgeWords(edge) }))
const placementOptions = computed(() =>
  placements.value.map(({ placement }) => ({
    value: placement,
    label: placement,
    detail: titleOf(placement),
  })),
)
const kinds = computed(() =>
  Object.entries(choices.value?.joints ?? {}).map(([value, { title }]) => ({ value, label: title })),
)
</script>

<template>
  <section v-if="choices" class="joint">
    <template v-if="joint">
      <ActButtons class="todo" :acts="acts.ofJoint(joint.id)">
        <ElButton link size="small" :aria-expanded="!!open" @click="changing = !changing">
          {{ open ? 'Close' : 'Change it' }}
        </ElButton>
      </ActButtons>
      <form v-if="open" @submit.prevent>
        <ChoiceField
          class="wide"
          label="Kind"
          :options="kinds"
          :model-value="how.kind"
          @update:model-value="setKind"
        />
        <template v-for="end in ['first', 'second'] as const" :key="end">
          <ChoiceField
            :label="end === 'first' ? 'First' : 'Second'"
            :field="`${path}/${end}/placement`"
            :options="placementOptions"
            :model-value="joint[end].placement"
            :problem="job.problemAt(`${path}/${end}/placement`)"
            @update:model-value="setPlacement(end, $event)"
          />
          <ChoiceField
            label="Edge"
            :field="`${path}/${end}/edge`"
            :options="edgeOptions(joint[end].placement)"
            :model-value="joint[end].edge"
            :problem="job.problemAt(`${path}/${end}/edge`)"
            @update:model-value="job.put(`${path}/${end}/edge`, $event)"
          />
        </template>
        <AnswerField
          v-for="info in fields"
          :key="info.name"
          class="wide"
          :info="info"
          :path="`${path}/how`"
          :value="how[info.name]"
        />
      </form>
    </template>
    <p v-if="placements.length > 1" class="acts todo">
      <ElButton v-if="!adding" link size="small" @click="adding = true">Add a joint</ElButton>
      <template v-else>
        <ElButton v-for="kind in kinds" :key="kind.value" size="small" @click="add(kind.value)">{{
          kind.label
        }}</ElButton>
        <ElButton link size="small" @click="adding = false">Cancel</ElButton>
      </template>
    </p>
  </section>
</template>

<style scoped>
form {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 6px 12px;
  padding: 4px 18px;
}
.wide {
  grid-column: 1 / -1;
}
.todo {
  padding: 6px 18px 2px;
}
</style>
