<script setup lang="ts">
import { computed, defineAsyncComponent, ref, toRef } from 'vue'
import { type Schemas, problemOf } from '../../../foundation/api/client'
import { useEditionCommand } from '../../../foundation/commands/useEditionCommand'
import FormattedText from '../../../parts/FormattedText.vue'
import ProblemNote from '../../../parts/ProblemNote.vue'
import { joined } from '../../../foundation/words'
import { useOthersInText } from './useOthersInText'
import { useText } from './useText'
import { keptText, useTextDraft } from './useTextDraft'
import WritingField from './field/WritingField.vue'

/** The text of an item, written as it will be read, and saved as one types. */
const props = defineProps<{ edition: number; item: Schemas['ItemAnswer']; began: Schemas['TextAnswer'] }>()
const emit = defineEmits<{ close: [] }>()

const write = useEditionCommand(toRef(props, 'edition'), '/api/editions/{edition}/write-item')
const version = ref(props.item.version)
const text = useText(keptText(props.edition, props.item.id)?.html ?? props.began.html, () => draft.type())
const { editor, replace } = text
const draft = useTextDraft(props.edition, props.item.id, props.began, editor)
const { isWritten, problem, twice, status } = draft
const { others } = useOthersInText(props.edition, props.item.id, () => void draft.read())
const busy = ref(false)
/** It is asked once more whether what was written is to be dropped. */
const dropping = ref(false)
const conflict = computed(() => write.problem.value?.conflict ?? null)
/** A picture, sound or film for it is being uploaded. */
const isSending = ref(false)
/** The text is shown as Markdown. */
const asMarkdown = ref(false)
const MarkdownPart = defineAsyncComponent(() => import('./MarkdownPart.vue'))

async function once(act: () => Promise<unknown>): Promise<void> {
  busy.value = true
  await act().then(
    () => undefined,
    (error: unknown) => (problem.value ??= problemOf(error)),
  )
  busy.value = false
}

/** Puts the text in place: from now on students read it. */
const finish = () =>
  once(async () => {
    if (!(await draft.save()) || !editor.value) return
    // What others wrote goes with it.
    await draft.read()
    if (isWritten.value) {
      if (!(await write.run({ item: props.item.id, html: editor.value.getHTML(), version: version.value }))) return
      await draft.end()
    }
    emit('close')
  })

/** Closes it for now: what the server does not have is kept on this device. */
const pause = () =>
  once(async () => {
    await draft.save()
    emit('close')
  })

const drop = () =>
  once(async () => {
    if (draft.unsaved.value) await draft.save()
    if (await draft.end()) {
      draft.leave()
      emit('close')
    } else await draft.read()
    dropping.value = false
  })

/** Knowingly over what somebody else put in place meanwhile. */
function overTheirs(): void {
  if (conflict.value?.version) version.value = conflict.value.version
  void finish()
}

function setText(html: string): void {
  replace(html)
  asMarkdown.value = false
}
</script>

<template>
  <form class="editor" @submit.prevent="finish" @keydown.esc.stop.prevent="pause">
    <WritingField :text="text" :is-hidden="asMarkdown" @busy="isSending = $event">
      <template #tools>
        <button type="button" class="word-button" :aria-pressed="asMarkdown" @click="asMarkdown = !asMarkdown">
          Markdown
        </button>
      </template>
      <MarkdownPart
        v-if="asMarkdown && editor"
        :html="editor.getHTML()"
        :title="item.title"
        @set="setText"
        @close="asMarkdown = false"
      />
      <p v-if="others.length" role="status">
        {{ joined(others) }} {{ others.length === 1 ? 'is' : 'are' }} writing in this text too.
      </p>
    </WritingField>
    <ProblemNote v-if="write.problem.value" :problem="write.problem.value">
      <template v-if="conflict">
        <p class="second">Now it says:</p>
        <FormattedText :html="item.html" />
        <v-btn @click="overTheirs">Use mine instead</v-btn>
      </template>
    </ProblemNote>
    <ProblemNote v-if="problem" :problem="problem" />
    <p v-if="twice > 0" role="status" class="line">
      <span
        >Somebody changed {{ twice === 1 ? 'a paragraph' : 'some paragraphs' }} at the same time as you. Both versions
        are in the text now: keep the better one.</span
      >
      <button type="button" class="word-button" @click="twice = 0">dismiss</button>
    </p>
    <p v-if="dropping" class="line">
      <span>{{
        others.length
          ? `What you and ${joined(others)} wrote goes, and the text stays as it was.`
          : 'What was written goes, and the text stays as it was.'
      }}</span>
      <v-btn :disabled="busy" @click="drop">Drop it</v-btn>
      <v-btn @click="dropping = false">Keep writing</v-btn>
    </p>
    <p v-else-if="!asMarkdown" class="ways">
      <v-btn type="submit" class="meant" :disabled="isSending || busy">Use this text</v-btn>
      <v-btn :disabled="busy" @click="pause">Finish later</v-btn>
      <v-btn v-if="isWritten" :disabled="busy" @click="dropping = true">Drop what was written</v-btn>
      <span class="small" role="status">{{ status }}</span>
    </p>
    <p class="second small">
      {{
        item.published
          ? 'Saved as you type. Students keep reading the old text until you use this one.'
          : 'Saved as you type.'
      }}
    </p>
  </form>
</template>
