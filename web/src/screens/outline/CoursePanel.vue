<script setup lang="ts">
import { computed, ref, toRef } from 'vue'
import type { Schemas } from '../../foundation/api/client'
import { useEditionCommand } from '../../foundation/commands/useEditionCommand'
import { useReach } from '../../foundation/commands/useReach'
import { capital, levelNames, useLevels } from '../../foundation/levels'
import CommandPanel from '../../parts/CommandPanel.vue'
import LevelNameFields from '../../parts/fields/LevelNameFields.vue'
import OneOfField from '../../parts/fields/OneOfField.vue'
import WordField from '../../parts/fields/WordField.vue'

/** What holds for the course as a whole: its numbers, and what is seen of items before they open. */
const props = defineProps<{ edition: number; settings: Schemas['OutlineSettings'] }>()
const emit = defineEmits<{ close: [] }>()
const levels = useLevels()

const codes = ref(props.settings.codes)
const before = ref(props.settings.before)
const title = ref(props.settings.name.title)
const subject = ref(props.settings.name.subject)
const nameVersion = props.settings.name.version
/** What the levels are to be called. */
const names = ref(levelNames(levels.value))
const asRead = JSON.stringify(names.value)
const renamed = computed(() => JSON.stringify(names.value) !== asRead)
const version = props.settings.version
const change = useEditionCommand(toRef(props, 'edition'), '/api/editions/{edition}/change-course')
const called = computed(
  () => title.value.trim() !== props.settings.name.title || subject.value.trim() !== props.settings.name.subject,
)
const request = computed(() =>
  title.value.trim() === '' ||
  (codes.value === props.settings.codes && before.value === props.settings.before && !renamed.value && !called.value)
    ? null
    : {
        codes: codes.value,
        before: before.value,
        levels: names.value,
        version,
        name: called.value ? { title: title.value, subject: subject.value, version: nameVersion } : null,
      },
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
      <span>The course is called</span>
      <WordField v-model="title" class="name" label="Title of the course" />
      <span>subject</span>
      <WordField v-model="subject" class="name" label="Subject" placeholder="not said" :maxlength="120" />
      <span class="second">in all its editions</span>
    </p>
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
      <LevelNameFields v-model="names" />
      <span class="second">one and several; students see these words too</span>
    </p>
  </CommandPanel>
</template>

<style scoped>
.name {
  flex: 0 0 220px;
}
</style>
