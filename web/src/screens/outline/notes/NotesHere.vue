<script setup lang="ts">
import { computed, nextTick, ref, toRef, useTemplateRef } from 'vue'
import type { Schemas } from '../../../foundation/api/client'
import { questions } from '../../../foundation/api/questions'
import { useEditionCommand } from '../../../foundation/commands/useEditionCommand'
import { useAnswer } from '../../../foundation/useAnswer'
import TickField from '../../../parts/fields/TickField.vue'
import ProblemNote from '../../../parts/ProblemNote.vue'

/** What the team notes for itself on a unit, a lesson or an item, and what was left for it in earlier editions. */
const props = defineProps<{ edition: number; place: string; canChange: boolean }>()

type Note = Schemas['NoteAnswer']
const edition = toRef(props, 'edition')
const answer = useAnswer(() => questions.notes(props.edition))
const notes = computed(() => (answer.data.value ?? []).filter((note) => note.place === props.place))
const add = useEditionCommand(edition, '/api/editions/{edition}/add-note')
const change = useEditionCommand(edition, '/api/editions/{edition}/change-note')
const remove = useEditionCommand(edition, '/api/editions/{edition}/remove-note')
const commands = [add, change, remove]
const problem = computed(() => commands.map((one) => one.problem.value).find((one) => one) ?? null)
const busy = computed(() => commands.some((one) => one.busy.value))

/** The note that is being written: a new one, or one that is there. */
const writing = ref<'new' | number | null>(null)
const text = ref('')
const nextTime = ref(false)
let version = 0
const field = useTemplateRef<HTMLElement>('field')

function write(note: Note | null): void {
  commands.forEach((one) => one.reset())
  writing.value = note?.id ?? 'new'
  text.value = note?.text ?? ''
  nextTime.value = note?.nextTime ?? false
  version = note?.version ?? 0
  void nextTick(() => field.value?.querySelector('textarea')?.focus())
}

async function keep(): Promise<void> {
  if (text.value.trim() === '' || busy.value) return
  const said = { nextTime: nextTime.value, text: text.value }
  const doing =
    writing.value === 'new'
      ? add.run({ place: props.place, ...said })
      : change.run({ note: writing.value!, ...said, version })
  await doing.then(
    () => (writing.value = null),
    () => undefined,
  )
}
</script>

<template>
  <section v-if="canChange || notes.length" class="notes" aria-label="Team notes">
    <h3>Team notes</h3>
    <ul v-if="notes.length">
      <li v-for="note in notes" :key="note.id">
        <p v-if="writing !== note.id" class="said">{{ note.text }}</p>
        <p v-if="writing !== note.id" class="small second">
          <span v-if="note.leftIn" class="when">left in {{ note.leftIn }}</span>
          <span v-else-if="note.nextTime" class="when">for next time</span>
          {{ note.author }}, {{ note.writtenAt.words }}
          <template v-if="canChange && !note.leftIn">
            <button type="button" class="word-button" @click="write(note)">reword</button>
            <button
              type="button"
              class="word-button"
              :disabled="busy"
              @click="void remove.run({ note: note.id, version: note.version }).catch(() => undefined)"
            >
              remove
            </button>
          </template>
        </p>
      </li>
    </ul>
    <form
      v-if="writing !== null && canChange"
      ref="field"
      novalidate
      @submit.prevent="keep"
      @keydown.esc.stop.prevent="writing = null"
      @keydown.ctrl.enter.prevent="keep"
    >
      <v-textarea v-model="text" rows="3" auto-grow maxlength="2000" aria-label="The note" />
      <TickField v-model="nextTime" label="for next time" title="It also shows in the next edition of this course" />
      <p class="ways">
        <v-btn type="submit" class="meant" :disabled="text.trim() === '' || busy">Save the note</v-btn>
        <v-btn @click="writing = null">{{ writing === 'new' ? 'Not now' : 'Leave it as it is' }}</v-btn>
        <span class="small second">Students never see it.</span>
      </p>
    </form>
    <p v-else-if="canChange">
      <button type="button" class="word-button" @click="write(null)">Leave a note for the team</button>
    </p>
    <ProblemNote v-if="problem" :problem="problem" />
  </section>
</template>

<style scoped>
.notes {
  display: grid;
  gap: var(--space-3);
  max-width: 80ch;
}
h3 {
  font: 580 var(--size-unit) / 1.3 var(--face-display);
}
ul {
  display: grid;
  gap: var(--space-4);
  list-style: none;
  padding: 0;
}
.said {
  white-space: pre-line;
  overflow-wrap: anywhere;
}
.when {
  border: var(--stroke-hair) solid var(--hair);
  padding: 0 var(--space-2);
}
form {
  display: grid;
  gap: var(--space-3);
}
.ways {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: var(--space-5);
}
.small .word-button {
  margin-left: var(--space-3);
}
</style>
