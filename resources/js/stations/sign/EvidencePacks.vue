<script setup lang="ts">
import { ref } from 'vue'
import { bytes } from '@/format/counts'
import { moment } from '@/format/moments'
import ErrorNote from '@/parts/ErrorNote.vue'
import LoadState from '@/parts/LoadState.vue'
import { usePacks } from '@/stations/sign/usePacks'

/** What an auditor takes home: everything in open formats, sealed. */
const props = defineProps<{ tally: number }>()
const { packs, make, error, isMaking } = usePacks(() => props.tally)
const isAsking = ref(false)
</script>

<template>
  <section aria-label="Evidence">
    <h2>Evidence <RouterLink to="/check-a-pack" class="check">Check a pack</RouterLink></h2>
    <LoadState :is-loading="packs.isPending.value" :error="packs.error.value" what="The evidence packs" @retry="packs.refetch()">
      <p v-if="packs.data.value?.items.length === 0" class="quiet">
        No pack yet. It holds report, findings, rulings, proofs and signatures as files that anybody can read, sealed so that a change is seen.
      </p>
      <ol>
        <li v-for="pack in packs.data.value?.items" :key="pack.id">
          <a v-if="pack.isKept" :href="`/api/v1/packs/${pack.id}/zip`" download data-ordinal>Pack {{ pack.number }}, {{ bytes(pack.bytes) }}</a>
          <span v-else data-ordinal>Pack {{ pack.number }}, no longer kept</span>
          <span class="quiet when">{{ moment(pack.at) }}, {{ pack.by }}{{ pack.hasClearValues ? ', with deliveries and clear values' : '' }}</span>
          <span class="quiet seal"
            >seal <span class="cell">{{ pack.seal }}</span></span
          >
        </li>
      </ol>
      <p class="buttons">
        <el-button size="small" :loading="isMaking" @click="make(false)">{{ isMaking ? 'Making the pack' : 'Make an evidence pack' }}</el-button>
        <el-button v-if="packs.data.value?.mayTakeClear" size="small" :disabled="isMaking" @click="isAsking = true">With clear values</el-button>
      </p>
      <ErrorNote :error="error" />
      <p v-if="packs.data.value" class="quiet seal">
        sealed under the key <span class="cell">{{ packs.data.value.fingerprint }}</span>
      </p>
    </LoadState>
    <el-dialog v-model="isAsking" title="Evidence with clear values" width="min(520px, 95vw)">
      <p>
        This pack holds both deliveries byte for byte, and sensitive values that are masked everywhere else. That you had it made stands on the trail, and only
        a data owner can take it.
      </p>
      <template #footer>
        <el-button @click="isAsking = false">Not now</el-button>
        <el-button type="primary" @click="((isAsking = false), make(true))">Make it</el-button>
      </template>
    </el-dialog>
  </section>
</template>

<style scoped>
h2 {
  display: flex;
  justify-content: space-between;
  gap: 8px;
  margin: 0;
}
.check {
  font-size: 13px;
  font-weight: 400;
}
ol {
  list-style: none;
  margin: 8px 0 0;
  padding: 0;
  display: grid;
  gap: 8px;
  font-size: 13px;
}
p {
  margin: 8px 0 0;
  font-size: 13px;
}
.seal {
  display: block;
  font-size: 12px;
  overflow-wrap: anywhere;
}
.seal .cell {
  white-space: normal;
}
.when {
  margin-inline-start: 8px;
}
.buttons {
  display: flex;
  gap: 4px;
}
</style>
