import { endpoints } from './endpoints.ts'
import type { AnyEndpoint, BodyOf, Endpoint } from './endpoint.ts'
import { validate } from './fields/validate.ts'
import { BringBackCopy, MakeCopy, SetCopies } from './requests/copies.ts'
import { AddLine, AddPieces, CorrectThickness, CountLine } from './requests/drawer.ts'
import { AddGauge, CalibrateGauge, ChangeGauge, RetireGauge } from './requests/gauges.ts'
import { ChangeLife, CorrectJob, OpenJob } from './requests/life.ts'
import {
  ChangeRowPart,
  GivePartGrade,
  LayInRow,
  MakeEstimate,
  OrderRow,
  RecordApproval,
  SayFinding,
  SayOutcome,
} from './requests/parts.ts'
import { RemoveOwner } from './requests/privacy.ts'
import {
  AcceptLine,
  AgreeToDeparture,
  CloseStep,
  CorrectStep,
  KeepDraft,
  SeeRoute,
  TakeBack,
  UndoStep,
} from './requests/route.ts'
import { AddCase, AddOpenItem, CloseOpenItem, MoveJob, OpenLoop, SetScope } from './requests/scope.ts'
import { SupersedeReading, TakeReading } from './requests/reading.ts'
import { AcceptBuild, EnterStack, MarkPattern, TakePlan, WithdrawAcceptance } from './requests/setting.ts'
import {
  AddDrive,
  AddFigure,
  AdoptSheet,
  BeginDraft,
  CheckFigures,
  ImportList,
  ImportSheet,
  PublishSheet,
  PutRemarks,
  MoveRow,
  PutRow,
  PutRows,
  SettleEdge,
  UndoChange,
  SetFigure,
} from './requests/sheets.ts'
import { BeginPairing, PairDevice, RevokeDevice, SayCode, SetCode } from './requests/devices.ts'
import {
  AddPerson,
  ChangePerson,
  ChooseSchool,
  LeaveDemo,
  SetLikelihood,
  SetShopRules,
} from './requests/shop.ts'

type Endpoints = typeof endpoints
/** Names of the endpoints that are written with a body which a class checks. */
type Written = {
  [Name in keyof Endpoints]: Endpoints[Name] extends Endpoint<string, object, unknown> ? Name : never
}[keyof Endpoints]

/** A class that checks a body. */
export type BodyClass<Body extends object> = new () => Body

/** The class of each body. The server checks with it what came, the browser what it is about to send; a page that only reads needs none of them. */
const bodies: { readonly [Name in Written]: BodyClass<BodyOf<Endpoints[Name]>> } = {
  addPerson: AddPerson,
  changePerson: ChangePerson,
  openJob: OpenJob,
  enterStack: EnterStack,
  takeReading: TakeReading,
  supersedeReading: SupersedeReading,
  takePlan: TakePlan,
  markPattern: MarkPattern,
  acceptBuild: AcceptBuild,
  withdrawAcceptance: WithdrawAcceptance,
  closeStep: CloseStep,
  correctStep: CorrectStep,
  takeBack: TakeBack,
  undoStep: UndoStep,
  acceptLine: AcceptLine,
  agree: AgreeToDeparture,
  seeRoute: SeeRoute,
  keepDraft: KeepDraft,
  layInRow: LayInRow,
  orderRow: OrderRow,
  changeRowPart: ChangeRowPart,
  gradePart: GivePartGrade,
  sayFinding: SayFinding,
  sayOutcome: SayOutcome,
  makeEstimate: MakeEstimate,
  recordApproval: RecordApproval,
  chooseJobSchool: ChooseSchool,
  correctJob: CorrectJob,
  addFigure: AddFigure,
  settleEdge: SettleEdge,
  adoptSheet: AdoptSheet,
  changeLife: ChangeLife,
  setScope: SetScope,
  addOpenItem: AddOpenItem,
  closeOpenItem: CloseOpenItem,
  openLoop: OpenLoop,
  addCase: AddCase,
  moveJob: MoveJob,
  chooseShopSchool: ChooseSchool,
  setShopRules: SetShopRules,
  setLikelihood: SetLikelihood,
  removeOwner: RemoveOwner,
  leaveDemo: LeaveDemo,
  setCopies: SetCopies,
  makeCopy: MakeCopy,
  bringBackCopy: BringBackCopy,
  addLine: AddLine,
  addPieces: AddPieces,
  countLine: CountLine,
  correctThickness: CorrectThickness,
  addGauge: AddGauge,
  changeGauge: ChangeGauge,
  calibrateGauge: CalibrateGauge,
  retireGauge: RetireGauge,
  addDrive: AddDrive,
  beginDraft: BeginDraft,
  setFigure: SetFigure,
  putRow: PutRow,
  putRows: PutRows,
  moveRow: MoveRow,
  undoChange: UndoChange,
  putRemarks: PutRemarks,
  checkFigures: CheckFigures,
  publishSheet: PublishSheet,
  importSheet: ImportSheet,
  importList: ImportList,
  beginPairing: BeginPairing,
  pairDevice: PairDevice,
  revokeDevice: RevokeDevice,
  setCode: SetCode,
  sayCode: SayCode,
}

/** Every endpoint that is written with a body, and the class of it. */
export const writtenEndpoints: readonly {
  name: string
  endpoint: AnyEndpoint
  body: BodyClass<object>
}[] = Object.entries(bodies).map(([name, body]) => ({ name, endpoint: endpoints[name as Written], body }))

const byPath = new Map(writtenEndpoints.map(({ endpoint, body }) => [endpoint.path, body]))

/** The body as the endpoint's class knows it. @throws InputError naming every field that is wrong */
export function checkedBody<E extends Pick<AnyEndpoint, 'path'>>(
  endpoint: E,
  raw: unknown,
): BodyOf<E> & object {
  const body = byPath.get(endpoint.path)
  if (!body) throw new Error(`nothing is written at ${endpoint.path}`)
  return validate(body, raw) as BodyOf<E> & object
}
