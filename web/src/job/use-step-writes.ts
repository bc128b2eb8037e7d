import { endpoints } from '@moray/contract/endpoints'
import type { JobReply } from '@moray/contract/replies'
import type {
  AcceptLine,
  AgreeToDeparture,
  CloseStep,
  CorrectStep,
  TakeBack,
  UndoStep,
} from '@moray/contract/requests/route'
import type { AddFigure, SettleEdge } from '@moray/contract/requests/sheets'
import type { StepDraft } from '@moray/core/job/record'
import { reactive, ref } from 'vue'
import { useShop } from '../stores/shop.ts'
import { asWireError, send, type WireError } from '../wire/client.ts'
import { keepDrafts, sendForJob, useQueryClient } from '../wire/queries.ts'
import { newRequestId } from '../wire/request-id.ts'
import { answer, stateOf, type Answered, type WriteState } from '../writing/for-panels.ts'
import { useJobWrite } from '../writing/use-job-write.ts'
import { useWriteAs } from '../writing/use-write.ts'

/** All that the route writes for the panel of a step. */
export function useStepWrites(job: () => string) {
  const shop = useShop()
  const client = useQueryClient()
  const at = () => ({ id: job() })
  const [close, back, correct, figure, undo, edge] = [
    useJobWrite(),
    useJobWrite(),
    useJobWrite(),
    useJobWrite(),
    useJobWrite(),
    useJobWrite(),
  ] as const
  const lead = ref('')
  const accepter = ref('')
  const agreement = useWriteAs(() => lead.value)
  const line = useWriteAs(() => accepter.value || shop.personId)
  return {
    close: stateOf(close),
    closeStep: async (body: CloseStep, answered: (reply: JobReply | undefined) => void) =>
      answered(await close.send(endpoints.closeStep, at(), body)),
    back: stateOf(back),
    takeBack: (closing: number, body: TakeBack, answered: Answered) =>
      answer(back.send(endpoints.takeBack, { ...at(), closing }, body), answered),
    undo: stateOf(undo),
    undoStep: (closing: number, body: UndoStep, answered: Answered) =>
      answer(undo.send(endpoints.undoStep, { ...at(), closing }, body), answered),
    line: reactive(line) as unknown as WriteState,
    /** A line may stay as it is. @param by the lead who says so at this screen; empty for whoever works here */
    acceptLine(by: string, body: AcceptLine, answered: Answered) {
      accepter.value = by
      return answer(
        sendForJob(client, job(), () => line.send(endpoints.acceptLine, at(), body)),
        answered,
      )
    },
    correct: stateOf(correct),
    correctStep: (closing: number, body: CorrectStep, answered: Answered) =>
      answer(correct.send(endpoints.correctStep, { ...at(), closing }, body), answered),
    figure: stateOf(figure),
    addFigure: (body: AddFigure, answered: Answered) =>
      answer(figure.send(endpoints.addFigure, at(), body), answered),
    edge: stateOf(edge),
    settleEdge: (body: SettleEdge, answered: Answered) =>
      answer(edge.send(endpoints.settleEdge, at(), body), answered),
    agreement: reactive(agreement) as unknown as WriteState,
    /** The lead agrees under his own name, at the screen of whoever works. */
    agree(by: string, body: AgreeToDeparture, answered: Answered) {
      lead.value = by
      return answer(agreement.send(endpoints.agree, at(), body), answered)
    },
    /** Keeps what is typed at a step, here at once and on the server. One that does not get through is tried again with the next key. */
    async keepDraft(draft: StepDraft, failed: (error: WireError) => void) {
      const empty = Object.keys(draft.answers).length === 0
      keepDrafts(client, job(), (before) => {
        const others = before.filter((d) => d.step !== draft.step)
        return empty ? others : [...others, draft]
      })
      const { step, answers } = draft
      await send(endpoints.keepDraft, at(), { step, answers }, shop.personId, newRequestId()).catch(
        (e: unknown) => failed(asWireError(e)),
      )
    },
  }
}
