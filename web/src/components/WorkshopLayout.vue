<script setup lang="ts">
import PageSkeleton from './PageSkeleton.vue'
import TitleLine from './TitleLine.vue'

/** What the workshop has: a list on the left, the thing itself to scale, its numbers on the right. */
defineProps<{ title: string; about?: string; loading?: boolean }>()
</script>

<template>
  <div class="page">
    <TitleLine />
    <div class="middle">
      <nav class="list" :aria-label="title"><slot name="list" /></nav>
      <main id="main" tabindex="-1">
        <header>
          <h1>{{ title }}</h1>
          <span class="second about">{{ about }}</span>
          <span class="acts"><slot name="actions" /></span>
        </header>
        <PageSkeleton v-if="loading" frame="list" />
        <div v-else class="body"><slot /></div>
      </main>
      <aside aria-label="Ledger"><slot name="ledger" /></aside>
    </div>
  </div>
</template>

<style scoped>
.page {
  display: grid;
  grid-template-rows: auto minmax(0, 1fr);
  height: 100%;
}
.middle {
  display: grid;
  grid-template-columns: minmax(11rem, 15rem) minmax(0, 1fr) minmax(18rem, 22rem);
  min-height: 0;
}
.list {
  padding: 12px 0;
  border-right: 1px solid var(--line);
  overflow-y: auto;
}
main {
  display: grid;
  grid-template-rows: auto minmax(0, 1fr);
  min-height: 0;
  min-width: 0;
  background: var(--sheet);
}
main:focus {
  outline: none;
}
main > header {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 2px 12px;
  min-height: 3rem;
  padding: 10px 22px 4px;
}
.about {
  flex: 1;
}
.body {
  overflow-y: auto;
  padding: 0 22px 22px;
}
aside {
  overflow-y: auto;
  padding: 12px 18px 24px;
  background: var(--panel);
  border-left: 1px solid var(--line);
}
.list :deep(a),
.list :deep(.entry) {
  display: grid;
  gap: 1px;
  padding: 8px 16px;
  color: inherit;
  text-decoration: none;
  border-block: 1px solid transparent;
}
.list :deep(a:hover) {
  background: color-mix(in srgb, var(--panel) 60%, transparent);
}
.list :deep(a[aria-current='page']) {
  background: var(--panel);
  border-color: var(--line);
  box-shadow: inset 3px 0 var(--deep);
}
.list :deep(a:focus-visible) {
  outline-offset: -2px;
}
.list :deep(b) {
  font-weight: 600;
}
.list :deep(.add) {
  margin: 8px 14px;
}
aside :deep(h2),
.body :deep(h2) {
  margin: 18px 0 6px;
}
aside :deep(h2:first-child),
.body :deep(h2:first-child) {
  margin-top: 0;
}
aside :deep(.two) {
  display: grid;
  grid-template-columns: 1fr 1fr;
  align-items: start;
  gap: 8px 10px;
}
aside :deep(.wide) {
  grid-column: 1 / -1;
}
@media (max-width: 860px) {
  .page,
  .middle,
  main {
    display: block;
    height: auto;
  }
  .list {
    border-right: 0;
  }
}
</style>
