<script setup lang="ts">
import { computed, ref } from 'vue'
import { OWN_WORDS } from '@/format/ownWords'

/** The heading of a station asks or states something; its buttons say what happens; our own words that stand first here are explained here. */
const props = defineProps<{ heading: string; note?: string; words?: readonly string[] }>()
const isOpen = ref(false)
const explained = computed(() => (props.words ?? []).map((word) => ({ word, sentence: OWN_WORDS.get(word) ?? '' })))
</script>

<template>
  <header class="head">
    <h1>{{ heading }}</h1>
    <span class="note quiet">{{ note }}</span>
    <div class="actions">
      <el-button v-if="explained.length > 0" link size="small" :aria-expanded="isOpen" @click="isOpen = !isOpen">{{
        isOpen ? 'Close the words' : 'What the words mean'
      }}</el-button>
      <slot />
    </div>
    <dl v-if="isOpen">
      <template v-for="{ word, sentence } in explained" :key="word">
        <dt>{{ word }}</dt>
        <dd>{{ sentence }}</dd>
      </template>
    </dl>
  </header>
</template>

<style scoped>
.head {
  display: flex;
  align-items: center;
  flex-wrap: wrap;
  gap: 4px 12px;
  padding: 6px 16px;
  border-block-end: 1px solid var(--line);
  background: var(--sheet);
}
/* The heading gives the bar its height: one of its own would be all that it is given where there is little room. */
h1 {
  display: grid;
  align-content: center;
  min-block-size: 39px;
}
.note {
  flex: 1 1 120px;
  min-inline-size: 0;
  font-size: 13px;
}
.actions {
  margin-inline-start: auto;
  display: flex;
  gap: 12px;
  flex-wrap: wrap;
  align-items: center;
}
dl {
  flex: 1 0 100%;
  display: grid;
  grid-template-columns: auto minmax(0, 1fr);
  gap: 2px 12px;
  margin: 4px 0;
  font-size: 13px;
}
dt {
  font-weight: 600;
}
dd {
  margin: 0;
}
</style>
