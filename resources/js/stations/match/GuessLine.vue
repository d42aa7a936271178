<script setup lang="ts">
import type { ReadAs, Token } from '@/composables/draftChanges'
import { count } from '@/format/counts'
import CellValue from '@/parts/CellValue.vue'
import type { Guess } from '@/stations/match/guesses'

/** What is proposed for a pair, with what it would settle and the rows that show it. */
defineProps<{ guess: Guess; mayWork: boolean }>()
const emit = defineEmits<{ take: [readAs: readonly ReadAs[], tokens: readonly Token[]] }>()
const whole = (text: string) => [{ text, differs: false }]
</script>

<template>
  <div class="guess">
    <p>
      <b>{{ guess.source }}</b> <span data-sentence="advice/forms/forms">{{ guess.says }}</span><span
        v-if="guess.settles !== ''"
        data-figure="advice/forms/forms"
        >: {{ guess.settles }}.</span
      >
      <el-button
        v-if="mayWork && guess.ways.length === 1"
        size="small"
        :aria-label="`Take it: ${guess.source} ${guess.says}`"
        @click="emit('take', guess.ways[0]!.readAs, guess.ways[0]!.tokens)"
        >Take it</el-button
      >
    </p>
    <ul v-if="guess.ways.length > 1">
      <li v-for="way in guess.ways" :key="way.name">
        <el-button v-if="mayWork" size="small" @click="emit('take', way.readAs, way.tokens)"
          ><span data-sentence="advice/forms/forms">{{ way.name }}</span></el-button
        >
        <span v-else data-sentence="advice/forms/forms">{{ way.name }}</span>
        <span class="quiet" data-figure="advice/forms/forms">{{ way.settles }}</span>
      </li>
    </ul>
    <p v-if="guess.rows.length > 0" class="quiet rows">
      {{ guess.ways.length > 1 ? 'What tells them apart, for the first' : 'Seen in' }}:
      <span v-for="row in guess.rows" :key="`${row.sourceLine} ${row.targetLine}`" data-figure="advice/forms/forms"
        >lines {{ count(row.sourceLine) }} and {{ count(row.targetLine) }} <CellValue :stretches="whole(row.source)" side="source" />{{ ' '
        }}<CellValue :stretches="whole(row.target)" side="target"
      /></span>
    </p>
  </div>
</template>

<style scoped>
.guess {
  display: grid;
  gap: 2px;
  font-size: 12.5px;
  font-weight: 400;
  background: var(--mark);
  border-inline-start: 3px solid var(--mark-edge);
  padding: 4px 10px;
}
p {
  margin: 0;
}
ul {
  list-style: none;
  margin: 2px 0;
  padding: 0;
  display: grid;
  gap: 2px;
}
p .el-button {
  margin-inline-start: 8px;
}
.rows .cell + .cell {
  margin-inline-start: 8px;
}
.rows {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 12px;
}
</style>
