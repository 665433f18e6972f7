<script setup lang="ts">
import { computed, ref } from 'vue'
import { type Schemas, api, ask, once } from '../../foundation/api/client'
import { useLook } from '../../foundation/commands/useLook'
import { useSend } from '../../foundation/commands/useSend'
import { keys } from '../../foundation/keys'
import CommandPanel from '../../parts/CommandPanel.vue'
import WordField from '../../parts/fields/WordField.vue'
import type { PersonRow } from './people'

/** What is kept about somebody is erased, for good: what goes and what stays is said before, and their name is typed. */
const props = defineProps<{ person: PersonRow }>()
const emit = defineEmits<{ close: []; erased: [] }>()

const typed = ref('')
const asked = computed<Schemas['ErasePersonRequest']>(() => ({ person: props.person.person, name: props.person.name }))
const looking = useLook(asked, (body, signal) =>
  ask(api.POST('/api/school/erase-person', { params: { query: { preview: true } }, body, signal })),
)
const erasing = useSend(
  (body: Schemas['ErasePersonRequest'], key) =>
    ask(api.POST('/api/school/erase-person', { params: { header: once(key) }, body })),
  [keys.people, keys.places],
)
const isTyped = computed(() => typed.value.trim().toLowerCase() === props.person.name.toLowerCase())

async function send(): Promise<void> {
  if (await erasing.run({ person: props.person.person, name: typed.value })) emit('erased')
}
</script>

<template>
  <CommandPanel
    :label="`Erase what is kept about ${person.name}`"
    :problem="erasing.problem.value ?? looking.problem.value"
    reach="This cannot be undone. Save their data first, if they want it."
    :meant="erasing.busy.value ? 'Erasing …' : `Erase ${person.name} for good`"
    :disabled="!isTyped || erasing.busy.value || !looking.answer.value"
    @submit="send"
    @close="emit('close')"
  >
    <div v-if="looking.answer.value" class="two">
      <div>
        <p class="ruled-head">Goes</p>
        <ul>
          <li v-for="line in looking.answer.value.goes" :key="line">{{ line }}</li>
        </ul>
      </div>
      <div>
        <p class="ruled-head">Stays</p>
        <ul>
          <li v-for="line in looking.answer.value.stays" :key="line">{{ line }}</li>
          <li v-if="looking.answer.value.stays.length === 0" class="second">nothing</li>
        </ul>
      </div>
    </div>
    <p class="line">
      <span>To go on, type their name</span>
      <WordField v-model="typed" class="name" :label="`Type ${person.name}`" :placeholder="person.name" autofocus />
    </p>
  </CommandPanel>
</template>

<style scoped>
.two {
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 1fr));
  gap: var(--space-8);
}
li {
  padding: var(--space-2) 0;
}
.name {
  flex: 0 0 260px;
}
@media (max-width: 700px) {
  .two {
    grid-template-columns: 1fr;
  }
}
</style>
