<script setup lang="ts">
import { computed, ref } from 'vue'
import { useRoute } from 'vue-router'
import { bytes, count, counted } from '@/format/counts'
import { moment } from '@/format/moments'
import LoadState from '@/parts/LoadState.vue'
import TopBar from '@/parts/TopBar.vue'
import PurgeDialog from '@/stations/retention/PurgeDialog.vue'
import { type KeptDelivery, useContent } from '@/stations/retention/useContent'

/** What the migration keeps of what was delivered, what its rule says of it, and what was purged. */
const migration = Number(useRoute().params.migration)
const { content } = useContent(migration)
const chosen = ref<readonly number[]>([])
const isPurging = ref(false)
const said = ref('')
const items = computed(() => content.data.value?.items ?? [])
const kept = computed(() => items.value.filter(({ purge }) => purge === null))
const purged = computed(() => items.value.filter(({ purge }) => purge !== null))
const due = computed(() => kept.value.filter(({ isDue }) => isDue))
const chosenOnes = computed(() => kept.value.filter(({ id }) => chosen.value.includes(id)))
const name = ({ dataset, side, number }: KeptDelivery): string => `${dataset}, ${side} delivery ${number}`
const heading = computed(() =>
  items.value.length === 0
    ? 'Nothing was delivered yet'
    : `${counted(kept.value.length, 'delivery', 'deliveries')} kept${purged.value.length > 0 ? `, ${count(purged.value.length)} purged` : ''}`,
)

function choose(id: number, isChosen: boolean): void {
  chosen.value = isChosen ? [...chosen.value, id] : chosen.value.filter((one) => one !== id)
}
function done(deliveries: number): void {
  said.value = `The content of ${counted(deliveries, 'delivery', 'deliveries')} is purged.`
  chosen.value = []
}
</script>

<template>
  <TopBar :migration="content.data.value?.migration" />
  <main class="page">
    <LoadState :is-loading="content.isPending.value" :error="content.error.value" what="What is kept" @retry="content.refetch()">
      <template v-if="content.data.value">
        <div class="head">
          <h1>{{ heading }}</h1>
          <span v-if="content.data.value.mayPurge && kept.length > 0" class="buttons">
            <el-button v-if="due.length > 0" @click="chosen = due.map(({ id }) => id)">Choose what is due</el-button>
            <el-button type="primary" :disabled="chosenOnes.length === 0" @click="isPurging = true">
              {{ chosenOnes.length === 0 ? 'Purge content' : `Purge ${counted(chosenOnes.length, 'delivery', 'deliveries')}` }}
            </el-button>
          </span>
        </div>
        <p class="quiet">
          {{
            content.data.value.contentMonths === null
              ? 'The migration has no rule for how long content is kept; a test manager can set one on the board, under What is good enough.'
              : `The rule of the migration: content is kept for ${counted(content.data.value.contentMonths, 'month')} after it was delivered.`
          }}
          {{ content.data.value.mayPurge ? '' : 'A data owner purges it.' }}
          Purged content is gone for good, with every copy that is kept here; hashes, counts, who and when stay.
        </p>
        <p v-if="said !== ''" role="status" class="said">{{ said }}</p>
        <table v-if="kept.length > 0" class="figures">
          <thead>
            <tr>
              <th v-if="content.data.value.mayPurge" scope="col"><span class="unseen">chosen</span></th>
              <th scope="col">delivery</th>
              <th scope="col">file</th>
              <th scope="col" class="number">rows</th>
              <th scope="col" class="number">size</th>
              <th scope="col">delivered</th>
              <th v-if="content.data.value.contentMonths !== null" scope="col">kept until</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="one in kept" :key="one.id">
              <td v-if="content.data.value.mayPurge">
                <el-checkbox :model-value="chosen.includes(one.id)" :aria-label="`Choose ${name(one)}`" @update:model-value="choose(one.id, Boolean($event))" />
              </td>
              <td>
                <RouterLink :to="`/datasets/${one.datasetId}/deliver`">{{ one.dataset }}</RouterLink>,
                <span :class="one.side === 'source' ? 'src' : 'tgt'">{{ one.side }}</span> {{ one.number }}
              </td>
              <td class="file">{{ one.fileName }}</td>
              <td class="number">{{ count(one.rows) }}</td>
              <td class="number">{{ bytes(one.bytes) }}</td>
              <td>{{ moment(one.deliveredAt) }}</td>
              <td v-if="content.data.value.contentMonths !== null">{{ one.dueOn }}<b v-if="one.isDue">, due</b></td>
            </tr>
          </tbody>
        </table>
        <template v-if="purged.length > 0">
          <h2>Purged</h2>
          <table class="figures">
            <thead>
              <tr>
                <th scope="col">delivery</th>
                <th scope="col">file</th>
                <th scope="col" class="number">rows</th>
                <th scope="col">purged</th>
                <th scope="col">why</th>
                <th scope="col">what went</th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="one in purged" :key="one.id">
                <td>{{ one.dataset }}, {{ one.side }} {{ one.number }}</td>
                <td class="file">{{ one.fileName }}</td>
                <td class="number">{{ count(one.rows) }}</td>
                <td>
                  {{ one.purge && moment(one.purge.at) }} by {{ one.purge?.by
                  }}<span v-if="one.purge && !one.purge.isOver" class="quiet">, files are going</span>
                </td>
                <td class="file">{{ one.purge?.reason }}{{ one.purge?.wasDue ? ' (it was due)' : '' }}</td>
                <td v-if="one.purge">
                  {{ counted(one.purge.removed.files, 'file') }}, {{ bytes(one.purge.removed.bytes)
                  }}<template v-if="one.purge.removed.findings > 0"
                    >; {{ counted(one.purge.removed.findings, 'finding') }} of {{ counted(one.purge.removed.tallies, 'tally', 'tallies') }}</template
                  ><template v-if="one.purge.removed.reports + one.purge.removed.packs > 0"
                    >; {{ counted(one.purge.removed.reports, 'report') }}, {{ counted(one.purge.removed.packs, 'pack') }}</template
                  >
                </td>
              </tr>
            </tbody>
          </table>
        </template>
        <PurgeDialog
          v-if="isPurging"
          :migration="migration"
          :deliveries="chosenOnes"
          :needs-code="content.data.value.needsCode"
          @close="isPurging = false"
          @purged="done($event)"
        />
      </template>
    </LoadState>
  </main>
</template>

<style scoped>
.page {
  padding: 18px 24px;
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 10px;
  justify-items: start;
}
.head {
  display: flex;
  justify-content: space-between;
  gap: 12px;
  inline-size: 100%;
  flex-wrap: wrap;
}
.buttons {
  display: flex;
  gap: 8px;
}
p {
  margin: 0;
  max-inline-size: 80ch;
}
h2 {
  margin-block-start: 10px;
}
.said {
  font-weight: 600;
}
.file {
  min-inline-size: 11em;
  overflow-wrap: anywhere;
}
.figures :deep(.el-checkbox) {
  block-size: 20px;
}
</style>
