<script setup lang="ts">
import ErrorNote from '@/parts/ErrorNote.vue'
import LimitsEditor from '@/parts/LimitsEditor.vue'
import LoadState from '@/parts/LoadState.vue'
import { useLimits } from '@/stations/sign/useSignOff'

/** What is good enough for this dataset. It stands in the plan, and counts from the next tally on. */
const props = defineProps<{ dataset: number; migration: number }>()
const emit = defineEmits<{ close: [] }>()
const { limits, save } = useLimits(() => props.dataset)
</script>

<template>
  <el-dialog :model-value="true" title="What is good enough" width="min(640px, 95vw)" @close="emit('close')">
    <LoadState :is-loading="limits.isPending.value" :error="limits.error.value" what="The limits" @retry="limits.refetch()">
      <template v-if="limits.data.value">
        <LimitsEditor
          :limits="limits.data.value.limits"
          :inherited="limits.data.value.inherited"
          :choices="limits.data.value.choices"
          :may-change="limits.data.value.mayChange && limits.data.value.draft !== null"
          :is-saving="save.isPending.value"
          @update="save.mutate($event)"
        />
        <ErrorNote :error="save.error.value" />
        <p class="quiet">
          Limits are part of the plan and count from the next tally on; those of the migration are set on
          <RouterLink :to="`/migrations/${migration}`">its board</RouterLink>.
        </p>
      </template>
    </LoadState>
  </el-dialog>
</template>

<style scoped>
p {
  font-size: 13px;
  margin: 12px 0 0;
}
</style>
