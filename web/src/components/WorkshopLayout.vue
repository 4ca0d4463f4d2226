<script setup lang="ts">
import TitleLine from './TitleLine.vue'

/** What the workshop has: a list on the left, the thing itself to scale, its numbers on the right. */
defineProps<{ title: string; about?: string }>()
</script>

<template>
  <div class="page">
    <TitleLine />
    <div class="middle">
      <nav class="list" :aria-label="title"><slot name="list" /></nav>
      <main>
        <header>
          <h1>{{ title }}</h1>
          <span class="second">{{ about }}</span>
          <span class="actions"><slot name="actions" /></span>
        </header>
        <div class="body"><slot /></div>
      </main>
      <aside aria-label="Ledger"><slot name="ledger" /></aside>
    </div>
  </div>
</template>

<style scoped>
.page {
  display: grid;
  grid-template-rows: 38px minmax(0, 1fr);
  height: 100%;
  min-width: 1080px;
}
.middle {
  display: grid;
  grid-template-columns: 224px minmax(0, 1fr) 326px;
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
main > header {
  display: flex;
  align-items: baseline;
  gap: 12px;
  min-height: 46px;
  padding: 12px 22px 6px;
}
h1 {
  font-size: 16px;
  font-weight: 600;
  white-space: nowrap;
}
.actions {
  display: flex;
  gap: 8px;
  margin-left: auto;
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
.list :deep(a) {
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
.list :deep(b) {
  font-weight: 600;
}
aside :deep(h2),
.body :deep(h2) {
  margin: 18px 0 6px;
  font-size: 14.5px;
  font-weight: 600;
}
aside :deep(h2:first-child),
.body :deep(h2:first-child) {
  margin-top: 0;
}
aside :deep(.two) {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 8px 10px;
}
aside :deep(.wide) {
  grid-column: 1 / -1;
}
aside :deep(label) {
  color: var(--second);
}
</style>
