<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '../../foundation/api/client'
import { joined } from '../../foundation/words'

/** What a section holds of its own: what goes together with the course, what stays its own, and the work on both, counted. */
const props = defineProps<{ check: Schemas['JoinCheckAnswer'] }>()

const ways: Record<string, string> = {
  lineage: 'comes from the same course',
  code: 'has the same code',
  title: 'has the same title',
}
const items = computed(() => props.check.together.filter((thing) => thing.of === 'item'))
const others = computed(() => props.check.together.length - items.value.length)
const some = (titles: readonly string[]) => joined(titles.map((title) => `“${title}”`))
</script>

<template>
  <section aria-labelledby="holds">
    <h2 id="holds" class="ruled-head">What becomes of what it holds</h2>
    <p v-if="check.holds === null" class="none">It holds nothing of its own: from then on it is taught the course.</p>
    <template v-else>
      <p class="none">
        {{ check.holds }}: what is in both goes together, the rest stays its own. No work is lost, and none changes
        hands.
      </p>
      <table class="text-rows">
        <thead>
          <tr>
            <td></td>
            <th scope="col">now</th>
            <th scope="col">with the course</th>
            <th scope="col">with its own</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="row in check.work" :key="row.what">
            <th scope="row">{{ row.what }}</th>
            <td>{{ row.before }}</td>
            <td>{{ row.matched }}</td>
            <td>{{ row.own }}</td>
          </tr>
        </tbody>
      </table>
      <details v-if="check.together.length">
        <summary>
          {{ items.length === 1 ? '1 of its items is' : `${items.length} of its items are` }} the course’s{{
            others ? `, and ${others} of its other parts` : ''
          }}
        </summary>
        <ul>
          <li v-for="thing in check.together" :key="`${thing.of} ${thing.own} ${thing.course}`">
            {{ thing.course }}
            <span class="small"
              ><template v-if="!thing.course.endsWith(thing.own)">“{{ thing.own }}” there; </template
              >{{ ways[thing.by] }}</span
            >
          </li>
        </ul>
      </details>
      <p v-if="check.unclear.length" class="said">
        {{ some(check.unclear) }} could be more than one thing of the course: kept as its own.
      </p>
      <p v-if="check.stays.length" class="said"><b>Stays its own:</b> {{ some(check.stays) }}</p>
      <p v-else class="said">Everything it holds is in the course too.</p>
    </template>
  </section>
</template>

<style scoped>
h2 {
  font-size: var(--size-body);
}
.none,
.said {
  padding: var(--space-4) 0;
}
b {
  font-weight: 600;
}
details {
  padding-top: var(--space-4);
}
summary {
  cursor: pointer;
}
details li {
  padding: var(--space-1) 0;
}
</style>
