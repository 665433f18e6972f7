<script setup lang="ts">
import { useEventListener } from '@vueuse/core'
import { nextTick, onMounted, useTemplateRef } from 'vue'
import type { Schemas } from '../../foundation/api/client'
import { useSchoolDays } from '../../foundation/dates/schoolDays'
import { remarksIn } from '../../parts/remarks/remarks'
import RemarkList from '../../parts/remarks/RemarkList.vue'
import FormattedText from '../../parts/FormattedText.vue'
import { spokenDate } from '../../foundation/dates/typedDate'

/** Pieces of work on paper, each on a page of its own. It prints as soon as its pictures are there, and is gone afterwards. */
defineProps<{ section: string; pieces: Schemas['WorkPiece'][] }>()
const emit = defineEmits<{ printed: [] }>()

const days = useSchoolDays()
const sheet = useTemplateRef<HTMLElement>('sheet')
const isPicture = (file: Schemas['FileAnswer']) => file.kind === 'picture' || file.kind === 'drawing'

useEventListener(window, 'afterprint', () => emit('printed'))
onMounted(async () => {
  await nextTick()
  const pictures = [...(sheet.value?.querySelectorAll('img') ?? [])]
  // One that cannot be read does not keep the others from being printed.
  await Promise.all(pictures.map((picture) => picture.decode().catch(() => undefined)))
  window.print()
})
</script>

<template>
  <Teleport to="body">
    <div ref="sheet" class="printed-work">
      <article v-for="piece in pieces" :key="`${piece.item}-${piece.student}-${piece.n}`">
        <h1>{{ piece.name }}</h1>
        <p>
          {{ piece.code }} {{ piece.title }} · {{ section }} · handed in {{ piece.handedInAt.words
          }}<template v-if="piece.late">, {{ piece.late }}</template>
        </p>
        <p v-if="piece.text" class="written">{{ piece.text }}</p>
        <template v-for="answer in piece.quiz?.answers" :key="answer.question">
          <FormattedText :html="answer.html" />
          <p class="written">{{ answer.answer }}</p>
        </template>
        <dl v-if="piece.entries.length">
          <template v-for="(entry, at) in piece.entries" :key="at">
            <dt>{{ spokenDate(entry.on, days) }}</dt>
            <dd class="written">{{ entry.text }}</dd>
          </template>
        </dl>
        <figure v-for="file in piece.files" :key="file.id">
          <img v-if="isPicture(file)" :src="file.address" :alt="file.name" />
          <figcaption>{{ file.name }}, {{ file.sizeInWords }}</figcaption>
        </figure>
        <p v-for="link in piece.links" :key="link">{{ link }}</p>
        <p v-if="piece.back" class="written back">
          {{ piece.back.again ? 'Try again' : 'Go on' }}, {{ piece.back.at.words }}. {{ piece.back.text }}
        </p>
        <RemarkList v-if="piece.back" :piece="piece" :remarks="remarksIn(piece.back.remarks)" />
      </article>
    </div>
  </Teleport>
</template>

<style>
.printed-work {
  display: none;
}
@media print {
  body:has(> .printed-work) > :not(.printed-work) {
    display: none;
  }
  .printed-work {
    display: block;
    color: black;
    font: 11pt / 1.5 var(--face-text);
  }
  .printed-work article {
    break-after: page;
  }
  .printed-work article:last-child {
    break-after: auto;
  }
  .printed-work h1 {
    font: 600 16pt / 1.3 var(--face-display);
  }
  .printed-work p,
  .printed-work dl,
  .printed-work figure {
    margin: 0 0 10pt;
  }
  .printed-work dl {
    display: grid;
    grid-template-columns: 80pt 1fr;
    gap: 4pt 12pt;
  }
  .printed-work .written {
    white-space: pre-wrap;
    overflow-wrap: anywhere;
    margin-inline-start: 0;
  }
  .printed-work figure {
    break-inside: avoid;
  }
  .printed-work img {
    max-width: 100%;
    max-height: 200mm;
  }
  .printed-work figcaption {
    font-size: 9pt;
  }
  .printed-work .back {
    border-left: 2pt solid black;
    padding-left: 8pt;
  }
}
</style>
