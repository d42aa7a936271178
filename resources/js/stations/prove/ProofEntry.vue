<script setup lang="ts">
/** One of what can be chosen in Prove: its name, what it is about, and the figure that says how it stands. */
defineProps<{ name: string; about: string; isChosen: boolean; isAgreed: boolean }>()
const emit = defineEmits<{ choose: [] }>()
</script>

<template>
  <button type="button" :class="{ on: isChosen }" :aria-pressed="isChosen" @click="emit('choose')">
    <b>{{ name }}</b>
    <span class="about">{{ about }}</span>
    <span class="figure" :class="{ agrees: isAgreed }"><slot /></span>
  </button>
</template>

<style scoped>
button {
  display: flex;
  flex-wrap: wrap;
  gap: 0 8px;
  align-items: end;
  inline-size: 100%;
  border: 0;
  border-block-end: 1px solid var(--line);
  background: none;
  text-align: start;
  padding: 8px 14px;
  font-size: 13px;
  color: var(--ink-2);
  cursor: pointer;
  overflow-wrap: anywhere;
}
b {
  flex: 1 0 100%;
  color: var(--ink);
  font-size: 14px;
}
.on {
  background: var(--sheet);
  box-shadow: inset 3px 0 0 var(--ink);
}
.about {
  flex: 1 1 60px;
  min-inline-size: 0;
}
.figure {
  margin-inline-start: auto;
  text-align: end;
  font-weight: 650;
  color: var(--ink);
}
.agrees {
  color: var(--ink-3);
  font-weight: 500;
}
</style>
