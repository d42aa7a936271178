<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { bytes, counted } from '@/format/counts'
import ErrorNote from '@/parts/ErrorNote.vue'
import LoadState from '@/parts/LoadState.vue'
import WhoItIs from '@/parts/WhoItIs.vue'
import { type KeptDelivery, useContent } from '@/stations/retention/useContent'

/** What would go and what would stay, before it is done: it cannot be undone. */
const props = defineProps<{ migration: number; deliveries: readonly KeptDelivery[]; needsCode: boolean }>()
const emit = defineEmits<{ close: []; purged: [deliveries: number] }>()
const { preview, purge } = useContent(props.migration)
// As they were chosen: when they are purged they are among those that are kept no more.
const ids = props.deliveries.map(({ id }) => id)
const reach = useQuery({ queryKey: ['migration', props.migration, 'purge-preview', ids], queryFn: () => preview(ids), staleTime: 0 })
const allAreDue = computed(() => props.deliveries.every(({ isDue }) => isDue))
const reason = ref(allAreDue.value ? 'Kept for as long as the rule of the migration says.' : '')
const [password, code] = [ref(''), ref('')]
const isReady = computed(
  () =>
    reach.data.value !== undefined && reason.value.trim() !== '' && password.value !== '' && (!props.needsCode || code.value !== '') && !purge.isPending.value,
)
const goes = computed(() => {
  const removed = reach.data.value?.removed
  if (removed === undefined) return []
  return [
    `${counted(removed.files, 'file')} of ${counted(ids.length, 'delivery', 'deliveries')}, ${bytes(removed.bytes)}`,
    ...(removed.refused > 0 ? [`the text of ${counted(removed.refused, 'refused record')}`] : []),
    ...(removed.findings > 0 ? [`${counted(removed.findings, 'finding')}, with rows, examples and groups of totals`] : []),
    ...(removed.planValues > 0 ? [`${counted(removed.planValues, 'line')} of crosswalks, bridges and chosen rows in plans`] : []),
    ...(removed.corrections > 0 ? [`${counted(removed.corrections, 'line')} of corrections`] : []),
    ...(removed.comments > 0 ? [`the text of ${counted(removed.comments, 'comment')}`] : []),
    ...(removed.reports + removed.links > 0 ? [`${counted(removed.reports, 'printed report')} and ${counted(removed.links, 'report')} behind links`] : []),
    ...(removed.packs > 0 ? [counted(removed.packs, 'evidence pack')] : []),
    'profiles, samples, prepared sides, answers, saved filters and workbooks',
  ]
})
const signed = computed(() => reach.data.value?.tallies.filter(({ state }) => state !== 'none') ?? [])

function act(): void {
  purge.mutate(
    { deliveries: ids, reason: reason.value.trim(), password: password.value, code: code.value || null },
    { onSuccess: () => (emit('purged', ids.length), emit('close')) },
  )
}
</script>

<template>
  <el-dialog :model-value="true" title="Purge content for good" width="min(680px, 95vw)" @close="emit('close')">
    <LoadState :is-loading="reach.isPending.value" :error="reach.error.value" what="What would go" @retry="reach.refetch()">
      <form @submit.prevent="isReady && act()">
        <h3>This goes</h3>
        <ul>
          <li v-for="one in goes" :key="one">{{ one }}</li>
        </ul>
        <p v-if="reach.data.value && reach.data.value.tallies.length > 0">
          Of these tallies nothing can be listed any more:
          {{ reach.data.value.tallies.map(({ dataset, number }) => `${dataset}, tally ${number}`).join('; ') }}.
          <b v-if="signed.length > 0">{{ signed.map(({ dataset, number, state }) => `${dataset}, tally ${number} is ${state}`).join('; ') }}.</b>
        </p>
        <h3>This stays</h3>
        <ul>
          <li>names, hashes, counts and figures; rulings with their reasons, signatures, waivers and the trail</li>
          <li>rules of plans, and what people wrote as reasons and remarks, also where they named a value</li>
          <li v-for="one in reach.data.value?.stays" :key="one">{{ one }}</li>
          <li>backups and packs that were taken away: nobody here can reach them</li>
        </ul>
        <label for="purge-reason">Why, as everybody will read it</label>
        <el-input id="purge-reason" v-model="reason" type="textarea" :rows="2" maxlength="1000" placeholder="by which rule, or who asked for it" />
        <WhoItIs v-model:password="password" v-model:code="code" name="purge" :needs-code="needsCode" />
        <ErrorNote :error="purge.error.value" />
        <div class="buttons">
          <el-button @click="emit('close')">Not now</el-button>
          <el-button type="danger" native-type="submit" :disabled="!isReady" :loading="purge.isPending.value">
            Purge {{ counted(ids.length, 'delivery', 'deliveries') }}
          </el-button>
        </div>
      </form>
    </LoadState>
  </el-dialog>
</template>

<style scoped>
form {
  display: grid;
  gap: 8px;
  font-size: 13px;
}
h3 {
  font-size: 13px;
  margin: 0;
}
ul {
  margin: 0;
  padding-inline-start: 18px;
  display: grid;
  gap: 2px;
}
p {
  margin: 0;
}
li,
p {
  overflow-wrap: anywhere;
}
.buttons {
  display: flex;
  justify-content: flex-end;
  gap: 8px;
}
</style>
