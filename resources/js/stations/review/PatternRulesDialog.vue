<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { ref } from 'vue'
import { answer, api, type Schemas } from '@/api/client'
import { count } from '@/format/counts'
import LoadState from '@/parts/LoadState.vue'
import { labelOf, type RuleOfPattern, ruleOf } from '@/stations/review/ruleOfPattern'

/** Rules that would let the cells of a pattern pass, each with how many: one is chosen, and Match shows what else it would change. */
const props = defineProps<{ tally: number; pattern: Schemas['Pattern'] }>()
const emit = defineEmits<{ close: []; makeRule: [rule: RuleOfPattern] }>()
const chosen = ref<number | null>(null)
const { data, error, isPending, refetch } = useQuery({
  queryKey: ['tally', () => props.tally, 'rules', () => props.pattern.number],
  queryFn: ({ signal }) =>
    answer(api.GET('/tallies/{tally}/patterns/{number}/rules', { params: { path: { tally: props.tally, number: props.pattern.number } }, signal })),
})
function make(): void {
  const offer = chosen.value === null ? undefined : data.value?.items[chosen.value]
  if (offer !== undefined) emit('makeRule', ruleOf(offer))
}
</script>

<template>
  <el-dialog :model-value="true" :title="`${pattern.source}: ${pattern.sentence}`" width="min(560px, 95vw)" @close="emit('close')">
    <LoadState :is-loading="isPending" :error="error" what="The rules" @retry="refetch()">
      <template v-if="data">
        <p v-if="data.items.length === 0">
          No rule of a plan lets these cells pass: the values differ. Rule on them; or put them right in the target, or by a step at Prepare.
        </p>
        <form v-else @submit.prevent="make">
          <fieldset>
            <legend>A rule of {{ pattern.source }} that would let pass</legend>
            <label v-for="(offer, place) in data.items" :key="place">
              <input v-model="chosen" type="radio" name="rule" :value="place" />
              <span>{{ labelOf(offer) }}</span>
              <span class="quiet">{{ offer.settles === data.cells ? 'all' : count(offer.settles) }} of {{ count(data.cells) }} cells</span>
            </label>
          </fieldset>
          <p v-if="data.cellsRead < data.cells" class="quiet">Counted among the first {{ count(data.cellsRead) }} cells.</p>
          <p class="quiet">The trial at Match shows what it would change before anything is tallied.</p>
          <el-button type="primary" native-type="submit" :disabled="chosen === null">Set it in the draft and go to Match</el-button>
        </form>
      </template>
    </LoadState>
  </el-dialog>
</template>

<style scoped>
form,
fieldset {
  display: grid;
  gap: 6px;
  justify-items: start;
  border: 0;
  margin: 0;
  padding: 0;
}
legend {
  padding: 0 0 4px;
  font-weight: 600;
}
label {
  display: flex;
  gap: 8px;
  align-items: baseline;
}
p {
  margin: 0;
  font-size: 13px;
}
</style>
