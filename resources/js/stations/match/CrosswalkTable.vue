<script setup lang="ts">
import { ref } from 'vue'
import type { Schemas } from '@/api/client'

/** Which target value a source value becomes. */
const props = defineProps<{ entries: readonly Schemas['KeyColumn'][]; mayWork: boolean }>()
const emit = defineEmits<{ change: [entries: Schemas['KeyColumn'][]] }>()

const source = ref('')
const target = ref('')

function add(): void {
  if (source.value === '') return
  emit('change', [...props.entries.filter((entry) => entry.source !== source.value), { source: source.value, target: target.value }])
  source.value = target.value = ''
}
</script>

<template>
  <fieldset>
    <legend>Crosswalk: source value, and what it becomes</legend>
    <div v-for="entry in entries" :key="entry.source" class="entry">
      <span class="cell">{{ entry.source }}</span>
      <span class="cell">{{ entry.target }}</span>
      <el-button
        v-if="mayWork"
        link
        :aria-label="`Take ${entry.source} out of the crosswalk`"
        @click="
          emit(
            'change',
            entries.filter((other) => other !== entry),
          )
        "
        >Remove</el-button
      >
    </div>
    <form v-if="mayWork" class="entry" @submit.prevent="add">
      <el-input v-model="source" aria-label="Source value" placeholder="A" />
      <el-input v-model="target" aria-label="Target value" placeholder="Active" />
      <el-button native-type="submit" :disabled="source === ''">Add</el-button>
    </form>
  </fieldset>
</template>

<style scoped>
fieldset {
  border: 0;
  padding: 0;
  margin: 0;
  display: grid;
  gap: 4px;
  min-inline-size: 0;
}
legend {
  font-size: 12.5px;
  color: var(--ink-2);
  padding: 0 0 4px;
}
.entry {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr) 68px;
  gap: 6px;
  align-items: center;
  overflow-wrap: anywhere;
}
</style>
