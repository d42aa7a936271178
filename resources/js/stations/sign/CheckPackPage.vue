<script setup lang="ts">
import { computed, ref } from 'vue'
import { bytes } from '@/format/counts'
import ErrorNote from '@/parts/ErrorNote.vue'
import TopBar from '@/parts/TopBar.vue'
import SealKeys from '@/stations/sign/SealKeys.vue'
import { usePackCheck } from '@/stations/sign/usePacks'

/** Whether an evidence pack is what it was: to the file, and under which key. */
const key = ref('')
const { check, error, send } = usePackCheck()
const heading = computed(() => {
  const found = check.value?.found
  if (check.value !== null && found == null) return check.value.state === 'receiving' ? 'The pack is being sent …' : 'The pack is being looked through …'
  if (found == null) return 'Is a pack what it was?'
  if (!found.fits) return 'The pack does not fit'
  return found.lines.some(({ state }) => state === 'unknown') && check.value?.isOwnKey !== true
    ? 'Every file fits; something nobody can tell from the pack alone'
    : 'The pack is what it was'
})
const MARKS = { fits: '✓ fits', differs: '✗ differs', unknown: '? not known' } as const
function chosen(event: Event): void {
  const file = (event.target as HTMLInputElement).files?.[0]
  if (file !== undefined) void send(file, key.value)
}
</script>

<template>
  <TopBar />
  <main class="page">
    <h1 aria-live="polite">{{ heading }}</h1>
    <p v-if="check?.found == null" class="quiet">
      An evidence pack says by its manifests and its seal whether any byte of it was changed. Name the fingerprint that you hold, from a printed report or from
      whoever keeps the installation: without one nobody can tell whether it was sealed anew. The pack is forgotten when it has been looked through.
    </p>
    <form @submit.prevent>
      <label for="check-key">Fingerprint of the key, if you hold one</label>
      <el-input id="check-key" v-model="key" maxlength="120" class="cell" />
      <label for="check-pack">Pack</label>
      <input id="check-pack" type="file" aria-label="Pack" accept=".zip,application/zip" @change="chosen" />
    </form>
    <p v-if="check?.state === 'receiving'" role="status" data-ordinal>{{ bytes(check.receivedBytes) }} of {{ bytes(check.bytes) }}</p>
    <ErrorNote :error="error" />
    <table v-if="check?.found">
      <thead>
        <tr>
          <th scope="col">What</th>
          <th scope="col">Which file</th>
          <th scope="col">Why</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="(line, place) in check.found.lines" :key="place" :class="line.state">
          <th scope="row">{{ MARKS[line.state] }}</th>
          <td class="cell">{{ line.about }}</td>
          <td class="words" data-ordinal>{{ line.words }}</td>
        </tr>
      </tbody>
    </table>
    <p v-if="check?.found && check.isOwnKey" data-ordinal>It is sealed with the key of this installation.</p>
    <SealKeys />
  </main>
</template>

<style scoped>
.page {
  padding: 18px 24px;
  max-inline-size: 1000px;
}
form {
  display: grid;
  grid-template-columns: max-content minmax(0, 1fr);
  gap: 10px 14px;
  align-items: center;
  margin-block: 12px;
}
table {
  border-collapse: collapse;
  inline-size: 100%;
  font-size: 13.5px;
  margin-block: 12px;
}
th,
td {
  text-align: start;
  vertical-align: top;
  padding: 6px 14px 6px 0;
  border-block-end: 1px solid var(--line);
  overflow-wrap: anywhere;
}
tbody th {
  white-space: nowrap;
  font-weight: 650;
}
.differs th {
  color: var(--fail);
}
.fits th {
  color: var(--pass);
}
.cell {
  white-space: pre-wrap;
}
td.cell {
  min-inline-size: 220px;
}
</style>
