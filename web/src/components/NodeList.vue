<script setup lang="ts">
import { useSay } from '../composables/useSay'
import { freeName, typed, type Document } from '../steps'
import { useJob } from '../stores/job'
import LengthField from './LengthField.vue'

/** The nodes of a free outline, in order once round. */
const props = defineProps<{ nodes: readonly Document[]; path: string }>()
const job = useJob()
const say = useSay()

function add(): void {
  const last = props.nodes.at(-1)!
  const id = freeName('n', props.nodes.map((node) => String(node['id']))).replace('n-', 'n') // prettier-ignore
  void job.put(`${props.path}/${id}`, { x: last['x'], y: last['y'] })
}

function text(node: Document, axis: 'x' | 'y'): string {
  const { text: as, unit } = typed(node[axis])
  return say.edit(as, unit)
}
</script>

<template>
  <fieldset>
    <legend>Nodes, in order once round</legend>
    <div v-for="(node, i) in nodes" :key="String(node['id'])" class="node">
      <LengthField
        v-for="axis in ['x', 'y'] as const"
        :key="axis"
        :field="`${path}/${node['id']}/${axis}`"
        :label="`Node ${i + 1}, ${axis}`"
        hide-label
        :text="text(node, axis)"
        @commit="job.put(`${path}/${node['id']}/${axis}`, $event)"
      />
      <ElButton
        v-if="nodes.length > 3"
        link
        size="small"
        :aria-label="`Remove node ${i + 1}`"
        @click="job.edit({ verb: 'drop', path: `${path}/${node['id']}` })"
      >
        Remove
      </ElButton>
    </div>
    <ElButton link size="small" @click="add">Add a node</ElButton>
  </fieldset>
</template>

<style scoped>
fieldset {
  margin: 0;
  padding: 4px 8px 8px;
  border: 1px solid var(--line);
}
legend {
  color: var(--second);
}
.node {
  display: grid;
  grid-template-columns: 1fr 1fr auto;
  gap: 8px;
  margin-bottom: 4px;
}
</style>
