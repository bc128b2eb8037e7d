import { endpoints } from '@moray/contract/endpoints'
import type { SupersedeReading, TakeReading } from '@moray/contract/requests/reading'
import type { AcceptBuild, EnterStack, TakePlan, WithdrawAcceptance } from '@moray/contract/requests/setting'
import type { AddFigure } from '@moray/contract/requests/sheets'
import { answer, stateOf, type Answered } from '../writing/for-panels.ts'
import { useJobWrite } from '../writing/use-job-write.ts'

/** All that the setting page writes for its panels. */
export function useSettingWrites(job: () => string) {
  const at = () => ({ id: job() })
  const [stack, reading, aside, plan, accept, withdraw, figure] = [
    useJobWrite(),
    useJobWrite(),
    useJobWrite(),
    useJobWrite(),
    useJobWrite(),
    useJobWrite(),
    useJobWrite(),
  ] as const
  return {
    stack: stateOf(stack),
    enterStack: (body: EnterStack, answered: Answered) =>
      answer(stack.send(endpoints.enterStack, at(), body), answered),
    reading: stateOf(reading),
    takeReading: (body: TakeReading, answered: Answered) =>
      answer(reading.send(endpoints.takeReading, at(), body), answered),
    aside: stateOf(aside),
    setAside: (id: number, body: SupersedeReading, answered?: Answered) =>
      answer(aside.send(endpoints.supersedeReading, { ...at(), reading: id }, body), answered),
    plan: stateOf(plan),
    takePlan: (body: TakePlan, answered?: Answered) =>
      answer(plan.send(endpoints.takePlan, at(), body), answered),
    accept: stateOf(accept),
    acceptBuild: (body: AcceptBuild, answered: Answered) =>
      answer(accept.send(endpoints.acceptBuild, at(), body), answered),
    withdraw: stateOf(withdraw),
    withdrawAcceptance: (body: WithdrawAcceptance, answered: Answered) =>
      answer(withdraw.send(endpoints.withdrawAcceptance, at(), body), answered),
    figure: stateOf(figure),
    addFigure: (body: AddFigure, answered: Answered) =>
      answer(figure.send(endpoints.addFigure, at(), body), answered),
  }
}
