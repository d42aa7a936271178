<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '@/api/client'
import type { DatabasePlace } from '@/stations/access/databasePlace'

/** Where the server of a database stands, and how it is entered. */
const props = defineProps<{ kind: Schemas['SourceKind']; port: number; hasSecret: boolean }>()
const place = defineModel<DatabasePlace>({ required: true })
const secret = defineModel<string>('secret', { required: true })
/** What the others do is a matter of their drivers. */
const mayBeEncrypted = computed(() => props.kind === 'postgresql' || props.kind === 'mysql')
const ENCRYPTIONS = {
  preferred: 'where the database offers it',
  required: 'always',
  verified: 'always, and its certificate is checked',
} as const
</script>

<template>
  <label v-if="kind === 'odbc'"
    >Driver, as the machine calls it <el-input v-model="place.driver" aria-label="Driver" placeholder="PostgreSQL Unicode" autocomplete="off"
  /></label>
  <label>Computer <el-input v-model="place.host" aria-label="Computer" placeholder="db.example.org" autocomplete="off" /></label>
  <label
    >Port
    <el-input-number
      v-model="place.port"
      :min="1"
      :max="65535"
      :controls="false"
      :placeholder="port === 0 ? 'that of its driver' : String(port)"
      aria-label="Port"
  /></label>
  <label>Database <el-input v-model="place.database" aria-label="Database" autocomplete="off" /></label>
  <label>User <el-input v-model="place.user" aria-label="User" autocomplete="off" /></label>
  <label
    >Password
    <el-input
      v-model="secret"
      type="password"
      aria-label="Password of the user"
      autocomplete="new-password"
      :placeholder="hasSecret ? 'the one that is kept' : ''"
  /></label>
  <label v-if="mayBeEncrypted"
    >Encrypted
    <el-select v-model="place.encryption" aria-label="Encrypted">
      <el-option v-for="(name, mode) in ENCRYPTIONS" :key="mode" :value="mode" :label="name" />
    </el-select>
  </label>
  <label v-if="mayBeEncrypted && place.encryption === 'verified'" class="wide"
    >Certificate of the authority (PEM)
    <textarea v-model="place.authority" rows="3" class="cell" aria-label="Certificate of the authority" placeholder="-----BEGIN CERTIFICATE-----"></textarea>
  </label>
</template>

<style scoped>
@import './fields.css';
</style>
