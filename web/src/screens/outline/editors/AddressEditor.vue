<script setup lang="ts">
import { useQueryClient } from '@tanstack/vue-query'
import { computed, ref, toRef } from 'vue'
import { type Problem, type Schemas, api, ask, problemOf } from '../../../foundation/api/client'
import { useEditionCommand } from '../../../foundation/commands/useEditionCommand'
import { usePinned } from '../../../foundation/commands/usePinned'
import { useReach } from '../../../foundation/commands/useReach'
import { keys } from '../../../foundation/keys'
import WordField from '../../../parts/fields/WordField.vue'
import ProblemNote from '../../../parts/ProblemNote.vue'

/** Where a link leads, and whether it could be reached when it was last tried. */
const props = defineProps<{ edition: number; item: Schemas['ItemAnswer']; canChange: boolean }>()

const client = useQueryClient()
const changing = ref(false)
const address = ref('')
const { version, overTheirs } = usePinned(props.item.version)
const point = useEditionCommand(toRef(props, 'edition'), '/api/editions/{edition}/point-link')
const request = computed(() =>
  !changing.value || address.value.trim() === '' || address.value.trim() === props.item.address
    ? null
    : { item: props.item.id, address: address.value.trim(), version: version.value },
)
const reach = useReach(request, point.preview)
const trying = ref(false)
const problem = ref<Problem | null>(null)

function begin(): void {
  address.value = props.item.address ?? ''
  version.value = props.item.version
  changing.value = true
}

/** Knowingly over what somebody else set meanwhile. */
function useMine(): void {
  overTheirs(point.problem.value)
  void save()
}

async function save(): Promise<void> {
  if (!request.value) return
  await point.run(request.value).then(
    async () => {
      changing.value = false
      await check()
    },
    () => undefined,
  )
}

/** Tries it now. */
async function check(): Promise<void> {
  trying.value = true
  problem.value = null
  await ask(
    api.POST('/api/editions/{edition}/items/{item}/check-link', {
      params: { path: { edition: props.edition, item: props.item.id } },
    }),
  ).catch((error: unknown) => (problem.value = problemOf(error)))
  await client.invalidateQueries({ queryKey: keys.edition(props.edition) })
  trying.value = false
}
</script>

<template>
  <form class="address" aria-label="Where it leads" @submit.prevent="save" @keydown.esc.stop="changing = false">
    <p v-if="!changing" class="line">
      <template v-if="item.address">
        <span>It leads to</span>
        <a :href="item.address" target="_blank" rel="noopener noreferrer" class="to">{{ item.address }}</a>
      </template>
      <span v-else class="accent">It leads nowhere yet.</span>
      <template v-if="canChange">
        <button type="button" class="word-button" @click="begin">
          {{ item.address ? 'change' : 'set its address' }}
        </button>
        <button v-if="item.address" type="button" class="word-button" :disabled="trying" @click="check">
          try it now
        </button>
      </template>
    </p>
    <p v-if="!changing && item.address" class="small second" role="status">
      <template v-if="trying">Trying …</template>
      <template v-else-if="item.link">
        <span :class="{ accent: item.link.outcome === 'gone' || item.link.outcome === 'silent' }">{{
          item.link.words
        }}</span>
        Tried {{ item.link.checkedAt.words
        }}<template v-if="item.link.reachedAt && item.link.outcome !== 'open' && item.link.outcome !== 'sign-in'"
          >; last reached {{ item.link.reachedAt.words }}</template
        >.
      </template>
      <template v-else>It has not been tried yet.</template>
    </p>
    <template v-if="changing">
      <p class="line">
        <span>It leads to</span>
        <WordField v-model="address" class="field" label="Its address" placeholder="https://" :maxlength="2000" />
      </p>
      <ProblemNote v-if="point.problem.value" :problem="point.problem.value">
        <v-btn v-if="point.problem.value.conflict" @click="useMine">Use mine instead</v-btn>
      </ProblemNote>
      <p class="ways">
        <v-btn type="submit" class="meant" :disabled="!request || point.busy.value">Set the address</v-btn>
        <v-btn @click="changing = false">Leave it as it is</v-btn>
        <span class="small" role="status">{{ reach }}</span>
      </p>
    </template>
    <ProblemNote v-if="problem" :problem="problem" />
  </form>
</template>

<style scoped>
.address {
  display: grid;
  gap: var(--space-2);
}
.to {
  overflow-wrap: anywhere;
}
.field {
  width: min(560px, 100%);
}
</style>
