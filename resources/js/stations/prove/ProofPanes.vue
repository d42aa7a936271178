<script setup lang="ts">
/** How the pages of Prove stand: what there is to choose on the left, what was chosen in the middle, and what can be said of it on the right. */
defineProps<{ tally: number; listLabel: string; label: string; isHeaded?: boolean }>()
</script>

<template>
  <div class="panes" :class="{ three: $slots.aside }" :data-tally="tally">
    <nav class="list" :aria-label="listLabel">
      <h2 v-if="isHeaded">{{ listLabel }}</h2>
      <slot name="list" />
    </nav>
    <section class="middle" :aria-label="label"><slot /></section>
    <aside v-if="$slots.aside"><slot name="aside" /></aside>
  </div>
</template>

<style scoped>
.panes {
  flex: 1;
  display: grid;
  grid-template-columns: 226px minmax(0, 1fr);
  min-block-size: 0;
  background: var(--sheet);
}
.three {
  grid-template-columns: 226px minmax(0, 1fr) 290px;
}
.list {
  background: var(--floor);
  border-inline-end: 1px solid var(--line);
  overflow: auto;
}
h2 {
  font-size: 12px;
  color: var(--ink-3);
  padding: 12px 14px 6px;
}
.list :slotted(.waiting) {
  padding: 8px 14px;
  margin: 0;
  font-size: 12.5px;
}
.middle :slotted(p) {
  margin: 2px 0 10px;
  font-size: 13px;
}
.middle {
  padding: 14px 18px;
  overflow: auto;
  overflow-wrap: anywhere;
}
aside {
  border-inline-start: 1px solid var(--line);
  background: var(--floor);
  padding: 14px 16px;
  overflow: auto;
}
@media (width < 1000px) {
  .panes,
  .three {
    grid-template-columns: minmax(0, 1fr);
    overflow: auto;
  }
}
</style>
