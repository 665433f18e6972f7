<script setup lang="ts">
import { computed, ref } from 'vue'
import { type Schemas, api, ask, once } from '../../foundation/api/client'
import { useLook } from '../../foundation/commands/useLook'
import { useSend } from '../../foundation/commands/useSend'
import { keys } from '../../foundation/keys'
import CommandPanel from '../../parts/CommandPanel.vue'
import OneOfField from '../../parts/fields/OneOfField.vue'
import WordField from '../../parts/fields/WordField.vue'
import { type PersonRow, mayBeOne, partOf } from './people'

/** Two accounts that are one person's: which of them goes on, and what comes together, before they are joined. */
const props = defineProps<{ person: PersonRow; people: readonly PersonRow[] }>()
const emit = defineEmits<{ close: []; joined: [] }>()

const second = ref<PersonRow | null>(null)
const words = ref('')
const MOST = 6
const found = computed(() => mayBeOne(props.person, props.people, words.value).slice(0, MOST))
/** The first account is kept, until the other is chosen. One's own is never the one that goes. */
const kept = ref<'first' | 'second'>('first')
const asked = computed<Schemas['JoinPeopleRequest'] | null>(() =>
  second.value === null
    ? null
    : kept.value === 'first'
      ? { kept: props.person.person, other: second.value.person }
      : { kept: second.value.person, other: props.person.person },
)
const looking = useLook(asked, (body, signal) =>
  ask(api.POST('/api/school/join-people', { params: { query: { preview: true } }, body, signal })),
)
const joining = useSend(
  (body: Schemas['JoinPeopleRequest'], key) =>
    ask(api.POST('/api/school/join-people', { params: { header: once(key) }, body })),
  [keys.people, keys.places],
)

async function send(): Promise<void> {
  if (asked.value && (await joining.run(asked.value))) emit('joined')
}
</script>

<template>
  <CommandPanel
    leave="Keep them apart"
    :label="`Join ${person.name} with another account`"
    :problem="joining.problem.value ?? looking.problem.value"
    reach="You can separate them again, until they change sections or work that was joined is touched."
    :meant="joining.busy.value ? 'Joining …' : 'Join the two accounts'"
    :disabled="!asked || joining.busy.value || !looking.answer.value"
    @submit="send"
    @close="emit('close')"
  >
    <p class="line">
      <span>{{ person.name }}, {{ person.email }}, is the same person as</span>
      <template v-if="second">
        <b>{{ second.name }}, {{ second.email }}</b>
        <button type="button" class="word-button small" @click="second = null">somebody else</button>
      </template>
      <WordField
        v-else
        v-model="words"
        class="who"
        label="Find the other account"
        placeholder="name or address"
        autofocus
      />
    </p>
    <ul v-if="!second" class="found">
      <li v-for="one in found" :key="one.person">
        <button type="button" class="word-button" @click="second = one">{{ one.name }}</button>
        <span class="second">{{ one.email }}, {{ partOf(one) }}</span>
      </li>
      <li v-if="found.length === 0" class="second">
        {{
          words.trim()
            ? 'Nobody else has that name or address.'
            : 'Nobody here has a name like it. Find them by name or address.'
        }}
      </li>
    </ul>
    <p v-if="second" class="line">
      <span>They go on as</span>
      <OneOfField
        v-model="kept"
        label="The account that is kept"
        :choices="[
          { value: 'first', title: person.email },
          { value: 'second', title: second.email },
        ]"
      />
    </p>
    <div v-if="asked && looking.answer.value">
      <p class="ruled-head">What happens</p>
      <ul>
        <li v-for="line in looking.answer.value.comes" :key="line">{{ line }}</li>
      </ul>
    </div>
  </CommandPanel>
</template>

<style scoped>
.who {
  flex: 0 0 260px;
}
.found li {
  display: flex;
  gap: var(--space-5);
}
li {
  padding: var(--space-2) 0;
}
</style>
