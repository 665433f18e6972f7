<script setup lang="ts">
import { computed, ref } from 'vue'
import type { DateGroup, How, Outcome, waysOf } from './lost'

/** The dates that each way moves, side by side: those to look at first, and the rest on demand. */
const props = defineProps<{
  groups: DateGroup[]
  ways: ReturnType<typeof waysOf>
  outcomes: (Outcome | null)[]
  how: How
}>()
/** What there is no way of needs no column. */
const columns = computed(() =>
  props.ways
    .map((way, at) => ({ ...way, at, isRead: Boolean(props.outcomes[at] && 'reach' in props.outcomes[at]!) }))
    .filter(({ at, isRead }) => isRead || !props.outcomes[at]),
)
const isWhole = ref(false)
const most = 3
/** The last group is cut where more stands before it. */
const shown = computed(() =>
  props.groups.map((group, at) => {
    const isRest = at === props.groups.length - 1 && at > 0 && !isWhole.value && group.rows.length > most
    return {
      ...group,
      rows: isRest ? group.rows.slice(0, most) : group.rows,
      more: isRest ? group.rows.length - most : 0,
    }
  }),
)
</script>

<template>
  <table v-if="groups.length > 0" aria-label="Dates that move">
    <thead>
      <tr>
        <th scope="col"><span class="said-only">Date</span></th>
        <th scope="col" class="small">now</th>
        <th v-for="way in columns" :key="way.how" scope="col" class="small" :class="{ at: way.how === how }">
          {{ way.words }}
        </th>
      </tr>
    </thead>
    <tbody v-for="group in shown" :key="group.title">
      <tr>
        <th :colspan="2 + columns.length" scope="rowgroup" class="title">{{ group.title }}</th>
      </tr>
      <tr v-for="row in group.rows" :key="`${row.name} ${row.field}`">
        <th scope="row">
          {{ row.name }} <span class="small">{{ row.field }}</span>
        </th>
        <td>{{ row.before ?? '–' }}</td>
        <td v-for="way in columns" :key="way.how" :class="{ at: way.how === how }">
          <template v-if="row.after[way.at] !== undefined"
            >{{ row.after[way.at] ?? 'no date'
            }}<span v-if="row.isOffDay[way.at]" class="small off">no class that day</span></template
          >
          <span v-else-if="way.isRead" class="small">stays</span>
        </td>
      </tr>
      <tr v-if="group.more > 0">
        <td :colspan="2 + columns.length">
          <button type="button" class="word-button" @click="isWhole = true">
            {{ group.more }} more {{ group.more === 1 ? 'date' : 'dates' }}
          </button>
        </td>
      </tr>
    </tbody>
  </table>
</template>

<style scoped>
table {
  border-collapse: collapse;
  width: 100%;
}
th,
td {
  text-align: left;
  vertical-align: top;
  font-weight: 400;
  padding: var(--space-2) var(--space-6) var(--space-2) 0;
  border-bottom: var(--stroke-hair) solid var(--faint-hair);
}
thead th {
  position: sticky;
  top: 0;
  background: var(--sheet);
  border-bottom: var(--stroke-hair) solid var(--ink);
}
td:nth-child(2) {
  white-space: nowrap;
}
.title {
  font-weight: 600;
  padding-top: var(--space-5);
}
.off {
  display: block;
}
.at {
  font-weight: 600;
}
</style>
