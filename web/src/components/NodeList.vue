<script setup lang="ts">
import { useNodes } from '../composables/useNodes'
import { useSay } from '../composables/useSay'
import { typed, type Document } from '../steps'
import { useJob } from '../stores/job'
import LengthField from './LengthField.vue'

/** The nodes of a free outline, in order once round. */
const props = defineProps<{ nodes: readonly Document[]; part: string; step: string }>()
const job = useJob()
const say = useSay()
const change = useNodes(() => props.part, () => props.step) // prettier-ignore
const path = () => `parts/${props.part}/steps/${props.step}/shape/nodes`
/** What is no number goes as it is, for the core to refuse. */
const asNumber = (typed: string) =>
  Number(typed.replace(',', '.').replace('−', '-')) || (/^[-−]?0*[.,]?0*$/.test(typed) ? 0 : typed)
const bulge = (node: Document) => say.number(Number(node['bulge'] ?? 0), 4, 0)

function text(node: Document, axis: 'x' | 'y'): string {
  const { text: as, unit } = typed(node[axis])
  return say.edit(as, unit)
}
</script>

<template>
  <fieldset :data-field="path()">
    <legend>Nodes, in order once round</legend>
    <p v-if="job.problemAt(path())" class="small bad" role="alert">
      {{ say.sentence(job.problem!.why) }} {{ say.sentence(job.problem!.fix) }}
    </p>
    <p class="small second">
      On the drawing they are dragged; a click on an edge adds one, dragging it bends the edge. A bend of 0 is
      straight, 1 half a circle to the right, −1 to the left.
    </p>
    <div class="head small second" aria-hidden="true">
      <span>from the left</span><span>from the bottom</span>
    </div>
    <div v-for="(node, i) in nodes" :key="String(node['id'])" class="node">
      <b class="figure" aria-hidden="true">{{ i + 1 }}</b>
      <LengthField
        v-for="axis in ['x', 'y'] as const"
        :key="axis"
        :field="`${path()}/${node['id']}/${axis}`"
        :label="`Node ${i + 1}, ${axis}`"
        hide-label
        :text="text(node, axis)"
        @commit="job.put(`${path()}/${node['id']}/${axis}`, $event)"
      />
      <span class="small second bend">bend after it</span>
      <LengthField
        :field="`${path()}/${node['id']}/bulge`"
        :label="`Bend of the edge after node ${i + 1}`"
        hide-label
        plain
        :text="bulge(node)"
        @commit="job.put(`${path()}/${node['id']}/bulge`, asNumber($event))"
      />
      <span class="acts">
        <ElButton
          link
          size="small"
          :aria-label="`Add a node after node ${i + 1}`"
          @click="change.add(String(node['id']))"
          >Add after</ElButton
        >
        <ElButton
          v-if="nodes.length > 3"
          link
          size="small"
          :aria-label="`Remove node ${i + 1}`"
          @click="change.remove(String(node['id']))"
          >Remove</ElButton
        >
      </span>
    </div>
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
  grid-template-columns: 1.2rem 1fr 1fr;
  gap: 4px 6px;
  align-items: center;
  padding: 6px 0;
  border-top: 1px solid var(--line);
}
.head {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 6px;
  padding-left: 1.6rem;
}
.bend {
  grid-column: 1 / 3;
  text-align: right;
}
.acts {
  grid-column: 2 / -1;
  display: flex;
  gap: 12px;
}
.acts :deep(.el-button + .el-button) {
  margin-left: 0;
}
</style>
