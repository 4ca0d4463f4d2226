<script setup lang="ts">
import { computed, nextTick, onMounted, ref, useTemplateRef, watch } from 'vue'

import ChoiceField from '../kit/ChoiceField.vue'
import { edgeWords, type Document } from '../steps'
import { useSay } from '../composables/useSay'
import { useStanding } from '../composables/useStanding'
import { useChoices } from '../stores/choices'
import { useJob } from '../stores/job'
import AnswerField from './AnswerField.vue'

/** Where the selected part stands: an edge of it against an edge of one that stands already, or by numbers; and what that comes to. */
const { says } = defineProps<{ says: Readonly<Record<string, readonly string[]>> | null }>()
type Pose = Document & { kind: string }
const KINDS = [
  { value: 'against', label: 'edge against edge' },
  { value: 'axes', label: 'along the axes' },
  { value: 'numbers', label: 'turned, by numbers' },
]
const job = useJob()
const say = useSay()
const shared = useChoices()
onMounted(shared.load)

const all = computed(() => job.design!.placements)
const own = computed(() => all.value.filter(({ part }) => part === job.picked.part))
const chosen = ref('')
watch(own, (some) => {
  if (!some.some(({ id }) => id === chosen.value)) chosen.value = some[0]?.id ?? ''
}, { immediate: true }) // prettier-ignore
const placement = computed(() => own.value.find(({ id }) => id === chosen.value) ?? null)
const pose = computed<Pose>(() => placement.value?.pose ?? { kind: 'axes' })
const path = computed(() => `placements/${chosen.value}/pose`)
const others = computed(() => all.value.filter(({ id }) => id !== chosen.value))

const edgesOf = (part: string) =>
  (job.design!.parts.find(({ id }) => id === part)?.edges ?? []).map((edge) => ({
    value: edge,
    label: edgeWords(edge),
  }))
const ownEdges = computed(() => edgesOf(job.picked.part))
const against = computed(() => others.value.find(({ id }) => id === pose.value['placement']) ?? null)
const itsEdges = computed(() => edgesOf(against.value?.part ?? ''))
const fields = computed(() =>
  (shared.choices?.fields[`pose/${pose.value.kind}`] ?? []).filter(({ kind }) => kind !== 'words'),
)

/** What is there is kept as far as another way of placing knows it: a placement moves only once its numbers are typed. */
function setKind(kind: string): void {
  if (kind === pose.value.kind) return
  const other = others.value[0]
  if (kind !== 'against') return void job.put(path.value, { kind })
  if (!other) return
  const edge = ownEdges.value[0]?.value ?? ''
  const its = edgesOf(other.part)[0]?.value ?? ''
  void job.put(path.value, { kind, edge, placement: other.id, other_edge: its })
}

function setOther(id: string): void {
  const part = others.value.find((one) => one.id === id)?.part ?? ''
  const edges = edgesOf(part).map(({ value }) => value)
  const now = String(pose.value['other_edge'] ?? '')
  void job.edit(
    { verb: 'put', path: `${path.value}/placement`, value: id },
    { verb: 'put', path: `${path.value}/other_edge`, value: edges.includes(now) ? now : (edges[0] ?? '') },
  )
}

/** How it is turned, as one word where it is turned as most are. */
const TURNED = [
  { value: '+x +z', label: 'upright, seen from the front' },
  { value: '+y +z', label: 'upright, seen from the side' },
  { value: '+x +y', label: 'lying flat' },
]
const turned = computed(() => `${String(pose.value['u'] ?? '+x')} ${String(pose.value['v'] ?? '+z')}`)
const turnings = computed(() =>
  TURNED.some(({ value }) => value === turned.value)
    ? TURNED
    : [...TURNED, { value: turned.value, label: 'another way' }],
)
function turn(way: string): void {
  const [u, v] = way.split(' ')
  void job.put(path.value, { ...pose.value, u, v })
}
const isUsual = computed(() => TURNED.some(({ value }) => value === turned.value))
const more = ref(false)
const isWay = (name: string) => name === 'u' || name === 'v'

const root = useTemplateRef<HTMLElement>('root')
const { stand } = useStanding()
/** Its first number is there to be typed in. */
async function standOne(part = job.picked.part): Promise<void> {
  const id = await stand(part)
  if (!id) return
  job.pick('part', part)
  await nextTick()
  chosen.value = id
  await nextTick()
  root.value?.querySelector<HTMLElement>('form input:not([role]):not([type=checkbox])')?.focus()
}
defineExpose({ standOne })
const waiting = computed(() =>
  job
    .design!.parts.filter(({ id }) => id !== job.picked.part && !all.value.some(({ part }) => part === id))
    .slice(0, FEW),
)
const FEW = 8

/** As people call it: the part, and which of its copies. */
function called(id: string): string {
  const part = all.value.find((one) => one.id === id)?.part ?? ''
  const same = all.value.filter((one) => one.part === part).map((one) => one.id)
  const name = job.design!.parts.find((one) => one.id === part)?.title ?? part
  return same.length > 1 ? `${name}, copy ${same.indexOf(id) + 1}` : name
}
</script>

<template>
  <section v-if="shared.choices && (job.picked.part || waiting.length)" ref="root" class="place">
    <h2 v-if="job.picked.part">Where it stands</h2>
    <p v-if="job.picked.part && !own.length" class="small second">
      It stands nowhere: it is cut, and not put together with the rest.
    </p>
    <form v-else-if="own.length" @submit.prevent>
      <ChoiceField
        v-if="own.length > 1"
        class="wide"
        label="Copy"
        :options="own.map(({ id }) => ({ value: id, label: called(id) }))"
        :model-value="chosen"
        @update:model-value="chosen = $event"
      />
      <ChoiceField
        class="wide"
        label="Placed"
        :options="others.length ? KINDS : KINDS.slice(1)"
        :model-value="pose.kind"
        @update:model-value="setKind"
      />
      <template v-if="pose.kind === 'against'">
        <ChoiceField
          label="Its edge"
          :field="`${path}/edge`"
          :options="ownEdges"
          :model-value="String(pose['edge'])"
          :problem="job.problemAt(`${path}/edge`)"
          @update:model-value="job.put(`${path}/edge`, $event)"
        />
        <ChoiceField
          label="Against"
          :field="`${path}/placement`"
          :options="others.map(({ id }) => ({ value: id, label: called(id) }))"
          :model-value="String(pose['placement'])"
          :problem="job.problemAt(`${path}/placement`)"
          @update:model-value="setOther"
        />
        <ChoiceField
          class="wide"
          label="Edge of that"
          :field="`${path}/other_edge`"
          :options="itsEdges"
          :model-value="String(pose['other_edge'])"
          :problem="job.problemAt(`${path}/other_edge`)"
          @update:model-value="job.put(`${path}/other_edge`, $event)"
        />
      </template>
      <ChoiceField
        v-if="pose.kind === 'axes'"
        class="wide"
        label="Turned"
        :field="path"
        :options="turnings"
        :model-value="turned"
        @update:model-value="turn"
      />
      <AnswerField
        v-for="info in fields.filter(({ name }) => !isWay(name) || !isUsual || more)"
        :key="info.name"
        :info="info"
        :path="path"
        :value="pose[info.name] ?? info.default"
      />
    </form>
    <ul v-if="placement && says?.[chosen]" class="small says" aria-live="polite">
      <li v-for="one in says[chosen]" :key="one">{{ say.sentence(one) }}</li>
    </ul>
    <p v-if="job.picked.part" class="acts">
      <ElButton link size="small" @click="standOne()">{{
        own.length ? 'Stand one more' : 'Stand it up'
      }}</ElButton>
      <ElButton v-if="pose.kind === 'axes' && placement && isUsual" link size="small" @click="more = !more">{{
        more ? 'Fewer ways' : 'Turn it another way'
      }}</ElButton>
      <ElButton
        v-if="placement"
        link
        size="small"
        @click="job.edit({ verb: 'drop', path: `placements/${chosen}` })"
        >Take it down</ElButton
      >
    </p>
    <template v-if="waiting.length && all.length">
      <h2>Not standing yet</h2>
      <p class="acts">
        <ElButton v-for="one in waiting" :key="one.id" size="small" @click="standOne(one.id)">{{
          one.title
        }}</ElButton>
      </p>
    </template>
  </section>
</template>

<style scoped>
.place {
  padding: 8px 18px;
  border-top: 1px solid var(--line);
}
form {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 6px 12px;
}
.wide {
  grid-column: 1 / -1;
}
.says {
  padding-top: 6px;
  color: var(--second);
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 14px;
  padding-top: 6px;
}
.acts :deep(.el-button + .el-button) {
  margin-left: 0;
}
</style>
