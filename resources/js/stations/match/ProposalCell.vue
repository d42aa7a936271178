<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '@/api/client'
import type { ReadAs } from '@/composables/draftChanges'
import type { Guess } from '@/stations/match/guesses'

/** A pair that is proposed, and how it would be read: one question for both. */
const props = defineProps<{ proposal: Schemas['Advice']['pairs']['proposals'][number]; guess: Guess | undefined; mayWork: boolean }>()
const emit = defineEmits<{ confirm: [readAs: readonly ReadAs[]] }>()
const ways = computed(() => props.guess?.ways ?? [])
const confirms = computed(() => `Confirm ${props.proposal.source} with ${props.proposal.target}`)
</script>

<template>
  <div class="proposal">
    <span
      ><b>{{ proposal.target }}</b> {{ proposal.strength }}: <span data-figure="advice/pairs">{{ proposal.reasons.join(', ') }}</span><span
        v-if="guess"
        data-sentence="advice/forms/forms"
        >; {{ guess.says }}</span
      ></span
    >
    <span v-if="mayWork" class="acts">
      <el-button v-if="ways.length < 2" size="small" :aria-label="confirms" @click="emit('confirm', ways[0]?.readAs ?? [])">Confirm</el-button>
      <el-button
        v-for="way in ways.length < 2 ? [] : ways"
        :key="way.name"
        size="small"
        :aria-label="`${confirms}: ${way.name}`"
        @click="emit('confirm', way.readAs)"
        >Confirm, <span data-sentence="advice/forms/forms">{{ way.name }}</span></el-button
      >
    </span>
  </div>
</template>

<style scoped>
.proposal {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 8px;
  align-items: center;
  justify-content: space-between;
  font-size: 12px;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 4px;
}
.acts .el-button {
  margin: 0;
}
</style>
