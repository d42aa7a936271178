<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { answer, api, type Schemas } from '@/api/client'
import { counted } from '@/format/counts'
import { moment } from '@/format/moments'
import LoadState from '@/parts/LoadState.vue'

/** Which deliveries are tallied, and what the tally is called: the latest ones and nothing, unless somebody says otherwise. */
const props = defineProps<{ course: Schemas['Course']; isStarting: boolean }>()
const emit = defineEmits<{ close: []; start: [terms: Schemas['StartRun']] }>()

const { data, error, isPending, refetch } = useQuery({
  queryKey: ['dataset', () => props.course.id, 'deliveries'],
  queryFn: () => answer(api.GET('/datasets/{dataset}/deliveries', { params: { path: { dataset: props.course.id } } })),
})
const sides = computed(() =>
  (['source', 'target'] as const).map((side) => ({
    side,
    label: side === 'source' ? props.course.migration.sourceLabel : props.course.migration.targetLabel,
    deliveries: (data.value?.items ?? []).filter((delivery) => delivery.side === side).sort((a, b) => b.number - a.number),
  })),
)
const chosen = ref<Partial<Record<'source' | 'target', number>>>({})
const name = ref('')
const said = (delivery: Schemas['Delivery']): string =>
  `no. ${delivery.number}, ${moment(delivery.deliveredAt)}: ${delivery.fileName}, ${counted(delivery.delivered, 'row')}`
function start(): void {
  emit('start', {
    ...(chosen.value.source === undefined ? {} : { sourceDelivery: chosen.value.source }),
    ...(chosen.value.target === undefined ? {} : { targetDelivery: chosen.value.target }),
    ...(name.value.trim() === '' ? {} : { name: name.value.trim() }),
  })
}
</script>

<template>
  <el-dialog :model-value="true" title="Tally chosen deliveries" width="min(640px, 95vw)" @close="emit('close')">
    <LoadState :is-loading="isPending" :error="error" what="The deliveries" @retry="refetch()">
      <form class="terms" @submit.prevent="start">
        <template v-for="{ side, label, deliveries } in sides" :key="side">
          <label :for="`delivery-${side}`" :class="side === 'source' ? 'src' : 'tgt'">{{ label }}</label>
          <select :id="`delivery-${side}`" v-model="chosen[side]">
            <option :value="undefined">the latest</option>
            <option v-for="delivery in deliveries" :key="delivery.id" :value="delivery.number">{{ said(delivery) }}</option>
          </select>
        </template>
        <label for="tally-name">Name of the tally</label>
        <el-input id="tally-name" v-model="name" maxlength="100" placeholder="none, or such as Rehearsal 3" />
        <p class="quiet">The draft of the plan is used as it is now. The tally becomes the newest one, whatever its deliveries are.</p>
        <el-button type="primary" native-type="submit" :loading="isStarting">Tally them</el-button>
      </form>
    </LoadState>
  </el-dialog>
</template>

<style scoped>
.terms {
  display: grid;
  grid-template-columns: auto minmax(0, 1fr);
  gap: 10px 14px;
  align-items: center;
}
select {
  border: 1px solid var(--edge);
  border-radius: 4px;
  padding: 5px 8px;
  background: var(--sheet);
  min-inline-size: 0;
}
p {
  grid-column: 1 / -1;
  margin: 0;
  font-size: 13px;
}
.terms > :last-child {
  grid-column: 1 / -1;
  justify-self: start;
}
</style>
