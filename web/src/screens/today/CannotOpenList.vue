<script setup lang="ts">
import { useQueryClient } from '@tanstack/vue-query'
import { ref } from 'vue'
import { useRoute } from 'vue-router'
import { type Problem, type Schemas, api, ask, once, problemOf } from '../../foundation/api/client'
import { keys } from '../../foundation/keys'
import ProblemNote from '../../parts/ProblemNote.vue'
import WhyLink from '../../parts/why/WhyLink.vue'
import { placeOf } from '../../parts/why/mends'

/** What students have said they can't open, each with the reason and what would help. */
const props = defineProps<{ edition: number; list: Schemas['TodayCannotOpen'][]; canChange: boolean }>()

const client = useQueryClient()
const route = useRoute()
const busy = ref(false)
const problem = ref<Problem | null>(null)

async function settle(cannotOpen: number): Promise<void> {
  busy.value = true
  problem.value = null
  await ask(
    api.POST('/api/editions/{edition}/settle-cannot-open', {
      params: { path: { edition: props.edition }, header: once() },
      body: { cannotOpen },
    }),
  ).catch((error: unknown) => (problem.value = problemOf(error)))
  await client.invalidateQueries({ queryKey: keys.edition(props.edition) })
  busy.value = false
}
</script>

<template>
  <ul aria-label="Can’t be opened">
    <li v-for="one in list" :key="one.id">
      <p>
        <b>{{ one.name }}</b> can’t open <span class="code">{{ one.code }}</span> {{ one.title
        }}<template v-if="one.note">: “{{ one.note }}”</template>
      </p>
      <p class="small">{{ one.why }} Said {{ one.saidAt.words }}.</p>
      <p class="small ways">
        <WhyLink :edition="edition" :student="one.student" :item="one.item" :name="`${one.name}, ${one.title}`" />
        <router-link :to="placeOf(one.mend, edition, route.query)!">{{ one.mend.words }}</router-link>
        <button v-if="canChange" type="button" class="word-button" :disabled="busy" @click="settle(one.id)">
          it is settled
        </button>
      </p>
    </li>
  </ul>
  <ProblemNote v-if="problem" :problem="problem" />
</template>

<style scoped>
ul {
  display: grid;
  gap: var(--space-4);
  list-style: none;
  padding: 0;
}
li {
  border-left: var(--stroke-strong) solid var(--accent);
  padding-left: var(--space-4);
}
.code {
  color: var(--ink-2);
}
.ways {
  display: flex;
  flex-wrap: wrap;
  gap: var(--space-4);
}
</style>
