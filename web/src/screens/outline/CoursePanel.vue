<script setup lang="ts">
import { computed, ref, toRef } from 'vue'
import type { Schemas } from '../../foundation/api/client'
import { useEditionCommand } from '../../foundation/commands/useEditionCommand'
import { useReach } from '../../foundation/commands/useReach'
import { type Levels, capital, plainLevels, useLevels } from '../../foundation/levels'
import CommandPanel from '../../parts/CommandPanel.vue'
import OneOfField from '../../parts/fields/OneOfField.vue'
import WordField from '../../parts/fields/WordField.vue'

/** What holds for the course as a whole: its numbers, and what is seen of items before they open. */
const props = defineProps<{ edition: number; settings: Schemas['OutlineSettings'] }>()
const emit = defineEmits<{ close: [] }>()
const levels = useLevels()

const codes = ref(props.settings.codes)
const before = ref(props.settings.before)
const order = ['unit', 'lesson', 'item'] as const
const numbers = ['one', 'many'] as const
const named = (of: Levels) =>
  Object.fromEntries(
    order.map((level) => [level, { one: of[level].one, many: of[level].many }]),
  ) as Schemas['LevelNames']
/** What the levels are to be called. */
const names = ref(named(levels.value))
const asRead = JSON.stringify(names.value)
const renamed = computed(() => JSON.stringify(names.value) !== asRead)
const version = props.settings.version
const change = useEditionCommand(toRef(props, 'edition'), '/api/editions/{edition}/change-course')
const request = computed(() =>
  codes.value === props.settings.codes && before.value === props.settings.before && !renamed.value
    ? null
    : { codes: codes.value, before: before.value, levels: names.value, version },
)
const reach = useReach(request, change.preview)

async function send(): Promise<void> {
  if (!request.value) return
  await change.run(request.value).then(
    () => emit('close'),
    () => undefined,
  )
}
</script>

<template>
  <CommandPanel
    label="Course settings"
    :problem="change.problem.value"
    :reach="reach"
    meant="Save"
    :disabled="!request || change.busy.value"
    @submit="send"
    @close="emit('close')"
  >
    <p class="line">
      <span>Before it opens {{ levels.item.a }} is</span>
      <OneOfField
        v-model="before"
        label="Before it opens"
        :choices="[
          { value: 'listed', title: 'listed: title and date' },
          { value: 'unseen', title: 'unseen' },
        ]"
      />
      <span class="second">unless it or its {{ levels.unit.one }} says otherwise</span>
    </p>
    <p class="line">
      <span>{{ capital(levels.item.many) }} are numbered</span>
      <OneOfField
        v-model="codes"
        label="Numbers"
        :disabled="settings.codesFixed"
        :choices="[
          { value: 'by-unit', title: `by ${levels.unit.one}, 3.07` },
          { value: 'straight', title: 'straight through, #041' },
        ]"
      />
      <span v-if="settings.codesFixed" class="second">
        Students have seen the codes, so they stay until the next edition.
      </span>
    </p>
    <p class="line">
      <span>Its levels are called</span>
      <span v-for="level in order" :key="level" class="level">
        <WordField
          v-for="number in numbers"
          :key="number"
          v-model="names[level][number]"
          :maxlength="24"
          :label="`${number === 'one' ? 'One' : 'Several'} ${plainLevels[level][number]}`"
        />
      </span>
      <span class="second">one and several; students see these words too</span>
    </p>
  </CommandPanel>
</template>

<style scoped>
.level {
  display: inline-flex;
  gap: var(--space-2);
}
.level .v-input {
  width: 9em;
}
</style>
