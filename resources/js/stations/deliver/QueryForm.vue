<script setup lang="ts">
import { ref } from 'vue'

/** A delivery that is asked of a database instead of a file. */
const props = defineProps<{ sources: readonly string[]; isBusy: boolean; label: string; last?: { source: string; sql: string } }>()
const emit = defineEmits<{ ask: [source: string, sql: string] }>()
const isOpen = ref(false)
const source = ref(props.last?.source ?? props.sources[0] ?? '')
const sql = ref(props.last?.sql ?? '')
</script>

<template>
  <el-button v-if="!isOpen" @click="isOpen = true">Query a database</el-button>
  <form v-else class="query" @submit.prevent="emit('ask', source, sql)">
    <label>
      Database
      <el-select v-model="source" size="small" :aria-label="`Database of the ${label.toLowerCase()}`">
        <el-option v-for="name in sources" :key="name" :value="name" :label="name" />
      </el-select>
    </label>
    <textarea
      v-model="sql"
      rows="4"
      spellcheck="false"
      class="cell"
      :aria-label="`Query for the ${label.toLowerCase()}`"
      placeholder="SELECT … FROM … ORDER BY …"
    ></textarea>
    <div class="actions">
      <el-button native-type="submit" :loading="isBusy" :disabled="sql.trim() === ''">Take the rows of this query</el-button>
      <el-button link @click="isOpen = false">Not now</el-button>
    </div>
    <p class="quiet">It may only read. Its rows are written down as JSON Lines at one moment, and that file is what is kept.</p>
  </form>
</template>

<style scoped>
.query {
  display: grid;
  gap: 6px;
  inline-size: 100%;
}
label,
.actions {
  display: flex;
  gap: 8px;
  align-items: center;
}
textarea {
  border: 1px solid var(--edge);
  border-radius: 4px;
  padding: 4px 6px;
  background: var(--sheet);
  color: inherit;
  resize: vertical;
}
p {
  margin: 0;
  font-size: 12px;
}
</style>
