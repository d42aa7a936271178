<script setup lang="ts">
import { useMutation, useQueryClient } from '@tanstack/vue-query'
import { ref } from 'vue'
import { answer, api, type Schemas } from '@/api/client'
import { count, counted } from '@/format/counts'
import { moment } from '@/format/moments'
import ErrorNote from '@/parts/ErrorNote.vue'

/** What the deliverer says of the delivery, held against what arrived; what does not hold stands out until somebody has explained it. */
const props = defineProps<{ delivery: Schemas['Delivery']; mayWork: boolean }>()
const queries = useQueryClient()
const explained = ref<number | null>(null)
const text = ref('')

const explaining = useMutation({
  mutationFn: (claim: number) =>
    answer(
      api.POST('/deliveries/{delivery}/claims/{claim}/explanations', {
        params: { path: { delivery: props.delivery.id, claim } },
        body: { explanation: text.value },
      }),
    ),
  onSuccess: () => {
    explained.value = null
    text.value = ''
    return queries.invalidateQueries({ queryKey: ['dataset'] })
  },
})
const figure = (text: string): string => (/^\d{1,15}$/.test(text) ? count(Number(text)) : text)
const sentence = (claim: Schemas['Claim']): string => {
  const what = claim.about === 'rows' ? 'rows' : `sum of ${claim.column ?? ''}`
  const unreadable = claim.unreadable === 0 ? '' : ` (${counted(claim.unreadable, 'value')} in it no number)`
  return claim.holds
    ? `${what}: ${figure(claim.claimed)}, as ${claim.from === 'by hand' ? 'the deliverer says' : `${claim.from} says`}${unreadable}`
    : `${what}: ${figure(claim.arrived)} arrived, and ${claim.from === 'by hand' ? 'the deliverer' : claim.from} says ${claim.claimed === '' ? 'nothing' : figure(claim.claimed)}${unreadable}`
}
</script>

<template>
  <ul v-if="delivery.claims.length > 0" aria-label="What the deliverer says">
    <li v-for="(claim, place) in delivery.claims" :key="place" :class="{ warn: !claim.holds && claim.explanation === null }">
      <span :role="claim.holds || claim.explanation ? undefined : 'alert'" :data-figure="`course/${delivery.side}/claims/${place}`">{{ sentence(claim) }}</span>
      <span v-if="claim.explanation" class="quiet"> “{{ claim.explanation.text }}” {{ claim.explanation.by }}, {{ moment(claim.explanation.at) }} </span>
      <template v-if="!claim.holds && mayWork">
        <el-button v-if="explained !== place" link @click="explained = place">{{ claim.explanation ? 'Explain anew' : 'Explain' }}</el-button>
        <form v-else @submit.prevent="explaining.mutate(place)">
          <el-input v-model="text" size="small" maxlength="2000" :aria-label="`Why it differs: ${sentence(claim)}`" placeholder="why it differs" />
          <el-button native-type="submit" size="small" :loading="explaining.isPending.value" :disabled="text.trim() === ''">Keep the explanation</el-button>
        </form>
      </template>
    </li>
  </ul>
  <ErrorNote :error="explaining.error.value" />
</template>

<style scoped>
ul {
  list-style: none;
  margin: 0;
  padding: 0;
  font-size: 13px;
  display: grid;
  gap: 3px;
}
li {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 10px;
  align-items: center;
  overflow-wrap: anywhere;
}
.warn {
  background: var(--warn);
  padding: 3px 8px;
}
form {
  display: flex;
  gap: 8px;
  flex: 1 1 260px;
}
</style>
