<script setup lang="ts">
import { useMutation, useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { answer, api, type Schemas } from '@/api/client'
import { useSession } from '@/composables/useSession'
import { moment } from '@/format/moments'
import { type Role, roleName, ROLES } from '@/format/roles'
import ErrorNote from '@/parts/ErrorNote.vue'
import LoadState from '@/parts/LoadState.vue'
import TopBar from '@/parts/TopBar.vue'
import InviteForm from '@/stations/access/InviteForm.vue'
import LockDialog from '@/stations/access/LockDialog.vue'

/** Who is here and what they are in each migration. Administering gives no right to see, rule or sign. */
const queries = useQueryClient()
const { data: session } = useSession()
const { data, error, isPending, refetch } = useQuery({ queryKey: ['people'], queryFn: () => answer(api.GET('/people')) })
const refresh = () => queries.invalidateQueries({ queryKey: ['people'] })
const give = useMutation({
  mutationFn: ({ person, migration, role }: { person: number; migration: number; role: Role | null }) =>
    answer(api.PUT('/migrations/{migration}/people/{person}', { params: { path: { migration, person } }, body: { role } })),
  onSettled: refresh,
})
const withdraw = useMutation({
  mutationFn: (invitation: number) => answer(api.DELETE('/people/invitations/{invitation}', { params: { path: { invitation } } })),
  onSettled: refresh,
})
const unlock = useMutation({
  mutationFn: (person: number) => answer(api.PUT('/people/{person}/lock', { params: { path: { person } }, body: { isLocked: false, heir: null } })),
  onSettled: refresh,
})
type Person = Schemas['AllPeople']['items'][number]
const locking = ref<Person | null>(null)
const NONE = ''
const roleIn = (person: Person, migration: number): Role | '' => person.roles.find(({ migrationId }) => migrationId === migration)?.role ?? NONE
const migrations = computed(() => data.value?.migrations ?? [])
const isMe = (person: Person): boolean => person.id === session.value?.person?.id
const state = (person: Person): string =>
  [
    person.isAdministrator ? 'administrator' : '',
    person.lockedAt === null ? '' : `locked since ${moment(person.lockedAt)}`,
    person.seenAt === null ? 'never signed in' : `last seen ${moment(person.seenAt)}`,
  ]
    .filter((part) => part !== '')
    .join(', ')
</script>

<template>
  <TopBar />
  <main class="page">
    <LoadState :is-loading="isPending" :error="error" what="The people" @retry="refetch()">
      <template v-if="data">
        <h1>People</h1>
        <p class="quiet">An administrator keeps people and roles, and sees, rules and signs nothing by that. Nobody gives a role to themself.</p>
        <ErrorNote :error="give.error.value ?? withdraw.error.value ?? unlock.error.value" />
        <div class="scroll">
          <table>
            <thead>
              <tr>
                <th scope="col">person</th>
                <th v-for="migration in migrations" :key="migration.id" scope="col">{{ migration.name }}</th>
                <th scope="col"><span class="unseen">lock</span></th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="person in data.items" :key="person.id" :class="{ locked: person.lockedAt !== null }">
                <th scope="row">
                  {{ person.name }} <span class="quiet small">{{ person.email }}</span> <span class="quiet small">{{ state(person) }}</span>
                </th>
                <td v-for="migration in migrations" :key="migration.id">
                  <el-select
                    size="small"
                    :model-value="roleIn(person, migration.id)"
                    :aria-label="`Role of ${person.name} in ${migration.name}`"
                    placeholder="no role"
                    :disabled="isMe(person) && roleIn(person, migration.id) === ''"
                    @update:model-value="give.mutate({ person: person.id, migration: migration.id, role: $event === NONE ? null : $event })"
                  >
                    <el-option :value="NONE" label="no role" />
                    <el-option
                      v-for="role in ROLES"
                      :key="role"
                      :value="role"
                      :label="roleName(role)"
                      :disabled="isMe(person) && role !== roleIn(person, migration.id)"
                    />
                  </el-select>
                </td>
                <td>
                  <template v-if="!isMe(person)">
                    <el-button v-if="person.lockedAt === null" size="small" @click="locking = person">Lock</el-button>
                    <el-button v-else size="small" :loading="unlock.isPending.value" @click="unlock.mutate(person.id)">Unlock</el-button>
                  </template>
                </td>
              </tr>
            </tbody>
          </table>
        </div>
        <h2>Invite somebody</h2>
        <InviteForm :migrations="migrations" @invited="refresh" />
        <template v-if="data.invitations.length > 0">
          <h3>Invited, and not here yet</h3>
          <ul>
            <li v-for="one in data.invitations" :key="one.id">
              <span
                >{{ one.name }}, {{ one.email }}<template v-if="one.role && one.migration">, {{ roleName(one.role) }} of {{ one.migration }}</template
                ><template v-if="one.isAdministrator">, administrator</template>
                <span class="quiet"> by {{ one.by }}; the link ends {{ moment(one.expiresAt) }}</span></span
              >
              <el-button link size="small" @click="withdraw.mutate(one.id)">Withdraw</el-button>
            </li>
          </ul>
        </template>
        <h2>Who had which role when</h2>
        <p v-if="data.history.length === 0" class="quiet">No role was given yet.</p>
        <ul v-else>
          <li v-for="(entry, place) in data.history" :key="place">
            <span
              >{{ entry.person }}: {{ entry.role === null ? 'no role any more' : roleName(entry.role) }} in {{ entry.migration }}
              <span class="quiet">{{ entry.by === null ? '' : `by ${entry.by}, ` }}{{ moment(entry.at) }}</span></span
            >
          </li>
        </ul>
      </template>
    </LoadState>
    <LockDialog v-if="locking && data" :person="locking" :people="data.items" @close="locking = null" @locked="((locking = null), refresh())" />
  </main>
</template>

<style scoped>
.page {
  padding: 18px 24px;
  display: grid;
  gap: 8px;
}
p {
  margin: 0;
}
h2 {
  margin-block-start: 14px;
}
h3 {
  margin-block: 6px 0;
  font-size: 14px;
}
.scroll {
  overflow-x: auto;
}
table {
  border-collapse: collapse;
}
th,
td {
  text-align: start;
  vertical-align: top;
  font-weight: 400;
  padding: 7px 18px 7px 0;
  border-block-end: 1px solid var(--line-2);
}
thead th {
  font-size: 12px;
  font-weight: 600;
  color: var(--ink-3);
}
td .el-select {
  inline-size: 150px;
}
.small {
  display: block;
  font-size: 12.5px;
}
.locked th {
  color: var(--ink-3);
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
  max-inline-size: 100ch;
}
li {
  display: flex;
  justify-content: space-between;
  gap: 14px;
  padding: 5px 0;
  border-block-end: 1px solid var(--line-2);
  overflow-wrap: anywhere;
}
</style>
