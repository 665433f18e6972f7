<script setup lang="ts">
import { computed } from 'vue'
import { questions } from '../../../foundation/api/questions'
import { useAnswer } from '../../../foundation/useAnswer'
import { useViewpoint } from '../../../foundation/useViewpoint'
import { ordinal } from '../../../foundation/words'
import ProblemNote from '../../../parts/ProblemNote.vue'
import WrittenPiece from '../../../parts/WrittenPiece.vue'
import { remarksIn } from '../../../parts/remarks/remarks'
import RemarkList from '../../../parts/remarks/RemarkList.vue'
import WordChanges from '../../../parts/text/WordChanges.vue'
import { changesOf } from './changed'

/** What a student handed in before, each time with what changed since the time before it, and what came back. */
const props = defineProps<{ edition: number; item: number; student: number }>()

const viewpoint = useViewpoint()
const answer = useAnswer(() => questions.versions(props.edition, props.item, props.student, viewpoint.query.value))
const versions = computed(() =>
  (answer.data.value ?? []).map((version, at, all) => {
    const before = all[at + 1]
    return {
      version,
      before: before ?? null,
      changes: before ? changesOf(before, version) : [],
    }
  }),
)
</script>

<template>
  <section class="versions" aria-label="Every time it was handed in">
    <ProblemNote v-if="answer.problem.value" :problem="answer.problem.value" :again="answer.refetch" />
    <p v-else-if="!answer.data.value" class="second" role="status">Reading …</p>
    <ol>
      <li v-for="{ version, before, changes } in versions" :key="version.n">
        <p class="small">
          The {{ ordinal(version.n) }} time, {{ version.at.words
          }}<template v-if="version.takenBackAt">, taken back {{ version.takenBackAt.words }}</template>
        </p>
        <template v-if="before">
          <WordChanges v-if="before.text !== version.text" :before="before.text" :now="version.text" />
          <p v-else-if="version.text" class="small second">The text stayed as it was.</p>
          <p v-for="(change, n) in changes" :key="`change ${n}`" class="small">
            {{ change.how }}: <component :is="change.how === 'added' ? 'ins' : 'del'">{{ change.what }}</component>
          </p>
        </template>
        <WrittenPiece v-else :piece="version" />
        <blockquote v-for="back in version.feedback" :key="back.at.instant">
          <p class="small">
            {{ back.by }}, {{ back.at.words }}: {{ back.again ? 'try again' : 'go on'
            }}<template v-if="back.mark">, {{ back.mark.words }}</template>
          </p>
          <p v-if="back.text" class="written">{{ back.text }}</p>
          <RemarkList :piece="version" :remarks="remarksIn(back.remarks)" />
        </blockquote>
      </li>
    </ol>
  </section>
</template>

<style scoped>
.versions {
  border-top: var(--stroke-hair) solid var(--hair);
  padding-top: var(--space-4);
}
ol {
  display: grid;
  gap: var(--space-6);
  list-style: none;
  padding: 0;
}
li {
  display: grid;
  gap: var(--space-3);
}
.written {
  white-space: pre-wrap;
  overflow-wrap: anywhere;
  max-width: 68ch;
}
ins {
  text-decoration: underline;
  text-decoration-thickness: 2px;
  text-underline-offset: 3px;
  font-weight: 600;
}
del {
  color: var(--ink-2);
}
blockquote {
  border-left: var(--stroke-strong) solid var(--hair);
  padding-left: var(--space-4);
}
</style>
