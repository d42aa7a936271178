<script setup lang="ts">
import { useMutation, useQuery, useQueryClient } from '@tanstack/vue-query'
import { ref } from 'vue'
import { answer, api, type Schemas } from '@/api/client'
import { moment } from '@/format/moments'
import ErrorNote from '@/parts/ErrorNote.vue'
import LoadState from '@/parts/LoadState.vue'
import TopBar from '@/parts/TopBar.vue'
import ConnectionForm from '@/stations/access/ConnectionForm.vue'
import WebhookList from '@/stations/access/WebhookList.vue'

/** Databases and feeds that deliveries are drawn from: each belongs to a migration, and its password is never told again. */
const queries = useQueryClient()
const { data, error, isPending, refetch } = useQuery({ queryKey: ['connections'], queryFn: () => answer(api.GET('/connections')) })
type Connection = Schemas['Connection']
/** What is changed; of none what is added. */
const editing = ref<{ migration: number; connection: Connection | null } | null>(null)
const removing = ref<Connection | null>(null)
const refresh = () => queries.invalidateQueries({ queryKey: ['connections'] })
const remove = useMutation({
  mutationFn: ({ id, migration }: Connection) =>
    answer(api.DELETE('/migrations/{migration}/connections/{connection}', { params: { path: { migration, connection: id } } })),
  onSuccess: () => {
    removing.value = null
    return refresh()
  },
})
const of = (migration: number): Connection[] => data.value?.items.filter((one) => one.migration === migration) ?? []
const kindName = (kind: Connection['kind']): string => data.value?.kinds.find((one) => one.kind === kind)?.label ?? kind
const place = ({ settings: { host, port, database, user, file, url, bucket, folder }, kind }: Connection): string =>
  host === undefined
    ? [file, url, bucket, kind === 'folder' ? (folder ?? 'the folder itself') : folder].filter((one) => one !== undefined).join(', ')
    : [`${user ?? ''} at ${host}${port === undefined ? '' : `, port ${port}`}`, database ?? folder].filter((one) => one !== undefined).join(', ')
</script>

<template>
  <TopBar />
  <main class="page">
    <LoadState :is-loading="isPending" :error="error" what="The list of connections" @retry="refetch()">
      <template v-if="data">
        <h1>Connections</h1>
        <p class="quiet">
          Databases, feeds, folders and buckets that deliveries are drawn from. Each is tried before it is kept, entered to read and nothing else, and known to
          those who work on its migration by its name alone. Give it a user that may read what is meant to be read: rights alone keep a query from the rest.
        </p>
        <ErrorNote :error="remove.error.value" />
        <section v-for="migration in data.migrations" :key="migration.id" :aria-label="migration.name">
          <h2>{{ migration.name }}</h2>
          <ul v-if="of(migration.id).length > 0" class="entries">
            <li v-for="one in of(migration.id)" :key="one.id">
              <span
                ><b>{{ one.label }}</b> {{ kindName(one.kind) }}, {{ place(one) }} <span class="quiet">{{ one.by }}, {{ moment(one.at) }}</span></span
              >
              <span class="buttons">
                <el-button size="small" :aria-label="`Change ${one.label}`" @click="editing = { migration: migration.id, connection: one }">Change</el-button>
                <el-button size="small" :aria-label="`Remove ${one.label}`" @click="removing = one">Remove</el-button>
              </span>
            </li>
          </ul>
          <p v-else class="quiet">No connection yet.</p>
          <el-button :aria-label="`Add a connection to ${migration.name}`" @click="editing = { migration: migration.id, connection: null }"
            >Add a connection</el-button
          >
          <WebhookList :migration="migration.id" :name="migration.name" />
        </section>
        <el-dialog
          :model-value="editing !== null"
          :title="editing?.connection ? `Change ${editing.connection.label}` : 'Add a connection'"
          width="min(640px, 95vw)"
          @close="editing = null"
        >
          <ConnectionForm
            v-if="editing"
            :migration="editing.migration"
            :kept="editing.connection"
            :kinds="data.kinds"
            :files="data.files"
            @kept="((editing = null), refresh())"
          />
        </el-dialog>
        <el-dialog :model-value="removing !== null" :title="`Remove ${removing?.label ?? ''}?`" width="min(480px, 95vw)" @close="removing = null">
          <p>What was drawn from it stays. Datasets that are drawn from it by schedule will say that no connection of this name is known.</p>
          <template #footer>
            <el-button @click="removing = null">Keep it</el-button>
            <el-button type="primary" :loading="remove.isPending.value" @click="removing && remove.mutate(removing)">Remove it</el-button>
          </template>
        </el-dialog>
      </template>
    </LoadState>
  </main>
</template>

<style scoped>
.page {
  padding: 18px 24px;
  display: grid;
  gap: 8px;
  max-inline-size: 110ch;
}
p {
  margin: 0;
}
section {
  display: grid;
  gap: 8px;
  justify-items: start;
}
h2 {
  margin-block-start: 14px;
}
.entries {
  inline-size: 100%;
}
.buttons {
  display: flex;
  gap: 8px;
}
</style>
