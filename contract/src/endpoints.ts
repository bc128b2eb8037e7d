import type { SheetBody } from '@moray/core/drives/own/body'
import type { DriveSheet } from '@moray/core/drives/sheet'
import { reads, takes, writes } from './endpoint.ts'
import type {
  CalculationResult,
  ClosingRecord,
  Device,
  DriveEntry,
  DrawerLine,
  DrawerMovement,
  EventEntry,
  FaultCase,
  Gauge,
  GaugeHistory,
  Health,
  JobPage,
  JobReply,
  KnownUnit,
  LastBuilt,
  ReferencePattern,
  Nothing,
  Pairing,
  Person,
  RouteChanges,
  SheetDraft,
  SheetExperience,
  SheetVersion,
  Shop,
} from './replies.ts'
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
import { AgreeToDeparture, CloseStep, CorrectStep, KeepDraft, SeeRoute, TakeBack } from './requests/route.ts'
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
  PutFurther,
  PutRemarks,
  PutRow,
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

const job = writes<JobReply>()
const line = writes<DrawerLine>()
const gauge = writes<Gauge>()
const shop = writes<Shop>()
const sheet = writes<SheetDraft>()

/** The whole HTTP interface. Paths stand here and nowhere else. */
export const endpoints = {
  health: reads<Health>()('/api/health'),
  people: reads<Person[]>()('/api/people'),
  addPerson: writes<Person[]>()('/api/people', AddPerson),
  changePerson: writes<Person[]>()('/api/people/:id', ChangePerson),

  /** `?search=`, `?state=open|over`, `?before=` the `next` of the page before. */
  jobs: reads<JobPage>()('/api/jobs'),
  units: reads<KnownUnit[]>()('/api/units'),
  openJob: job('/api/jobs', OpenJob),
  job: reads<JobReply>()('/api/jobs/:id'),
  events: reads<EventEntry[]>()('/api/jobs/:id/events'),
  closings: reads<ClosingRecord[]>()('/api/jobs/:id/closings'),
  routeChanges: reads<RouteChanges>()('/api/jobs/:id/route-changes'),
  faultHistory: reads<FaultCase[]>()('/api/jobs/:id/fault-history'),
  /** As this unit left here the last time; null when it never did. */
  referencePatterns: reads<ReferencePattern[]>()('/api/jobs/:id/reference-patterns'),
  lastBuilt: reads<LastBuilt | null>()('/api/jobs/:id/last-built'),

  enterStack: job('/api/jobs/:id/stacks', EnterStack),
  takeReading: job('/api/jobs/:id/readings', TakeReading),
  supersedeReading: job('/api/jobs/:id/readings/:reading/supersede', SupersedeReading),
  takePlan: job('/api/jobs/:id/trials', TakePlan),
  markPattern: job('/api/jobs/:id/patterns', MarkPattern),
  acceptBuild: job('/api/jobs/:id/acceptance', AcceptBuild),
  withdrawAcceptance: job('/api/jobs/:id/acceptance/withdraw', WithdrawAcceptance),
  closeStep: job('/api/jobs/:id/steps', CloseStep),
  correctStep: job('/api/jobs/:id/steps/:closing/correct', CorrectStep),
  takeBack: job('/api/jobs/:id/steps/:closing/take-back', TakeBack),
  agree: job('/api/jobs/:id/agreements', AgreeToDeparture),
  seeRoute: job('/api/jobs/:id/route-seen', SeeRoute),
  keepDraft: writes<Nothing>()('/api/jobs/:id/draft', KeepDraft),
  layInRow: job('/api/jobs/:id/row', LayInRow),
  orderRow: job('/api/jobs/:id/row/order', OrderRow),
  changeRowPart: job('/api/jobs/:id/row/:part', ChangeRowPart),
  gradePart: job('/api/jobs/:id/grades', GivePartGrade),
  sayFinding: job('/api/jobs/:id/findings', SayFinding),
  sayOutcome: job('/api/jobs/:id/outcome', SayOutcome),
  makeEstimate: job('/api/jobs/:id/estimates', MakeEstimate),
  recordApproval: job('/api/jobs/:id/approvals', RecordApproval),
  chooseJobSchool: job('/api/jobs/:id/schools', ChooseSchool),
  correctJob: job('/api/jobs/:id/details', CorrectJob),
  addFigure: job('/api/jobs/:id/figures', AddFigure),
  adoptSheet: job('/api/jobs/:id/sheet', AdoptSheet),
  changeLife: job('/api/jobs/:id/life', ChangeLife),
  setScope: job('/api/jobs/:id/scope', SetScope),
  addOpenItem: job('/api/jobs/:id/open-items', AddOpenItem),
  closeOpenItem: job('/api/jobs/:id/open-items/:item', CloseOpenItem),
  openLoop: job('/api/jobs/:id/loops', OpenLoop),
  addCase: job('/api/jobs/:id/cases', AddCase),
  moveJob: job('/api/jobs/:id/drive', MoveJob),

  shop: reads<Shop>()('/api/shop'),
  chooseShopSchool: shop('/api/shop/schools', ChooseSchool),
  setShopRules: shop('/api/shop/rules', SetShopRules),
  setLikelihood: shop('/api/shop/likelihoods', SetLikelihood),
  leaveDemo: shop('/api/shop/leave-demo', LeaveDemo),

  drawer: reads<DrawerLine[]>()('/api/drawer'),
  movements: reads<DrawerMovement[]>()('/api/drawer/:id/movements'),
  addLine: line('/api/drawer', AddLine),
  addPieces: line('/api/drawer/:id/add', AddPieces),
  countLine: line('/api/drawer/:id/count', CountLine),
  correctThickness: line('/api/drawer/:id/thickness', CorrectThickness),

  gauges: reads<Gauge[]>()('/api/gauges'),
  gaugeHistory: reads<GaugeHistory>()('/api/gauges/:id/history'),
  addGauge: gauge('/api/gauges', AddGauge),
  changeGauge: gauge('/api/gauges/:id/figures', ChangeGauge),
  calibrateGauge: gauge('/api/gauges/:id/calibrations', CalibrateGauge),
  retireGauge: gauge('/api/gauges/:id/retired', RetireGauge),
  /** The newest version of every sheet; of one that has none yet, its draft. */
  drives: reads<DriveEntry[]>()('/api/drives'),
  drive: reads<DriveSheet>()('/api/drives/:id'),
  addDrive: sheet('/api/drives', AddDrive),
  draft: reads<SheetDraft>()('/api/drives/:id/draft'),
  beginDraft: sheet('/api/drives/:id/draft', BeginDraft),
  setFigure: sheet('/api/drives/:id/figures', SetFigure),
  putRow: sheet('/api/drives/:id/rows', PutRow),
  putFurther: sheet('/api/drives/:id/further', PutFurther),
  putRemarks: sheet('/api/drives/:id/remarks', PutRemarks),
  checkFigures: sheet('/api/drives/:id/checked', CheckFigures),
  publishSheet: writes<SheetVersion[]>()('/api/drives/:id/versions', PublishSheet),
  versions: reads<SheetVersion[]>()('/api/drives/:id/versions'),
  /** The body of a version, as it leaves the shop. */
  sheetFile: reads<SheetBody>()('/api/drives/:id/versions/:version/file'),
  /** What accepted units have taught; `?without=` the job that asks. */
  experience: reads<SheetExperience>()('/api/drives/:id/experience'),
  importSheet: sheet('/api/sheets', ImportSheet),
  importList: sheet('/api/drives/:id/lists', ImportList),
  exportList: reads<string>()('/api/drives/:id/lists/:list'),
  /** Never changes: what it says may be kept for ever. */
  driveVersion: reads<DriveSheet>()('/api/drives/:id/versions/:version'),

  /** Takes the bytes of a picture; `?subject=`, `?of=`, `?note=`. */
  attach: takes<JobReply>()('/api/jobs/:id/files'),
  file: reads<Uint8Array>()('/api/files/:hash'),
  devices: reads<Device[]>()('/api/devices'),
  /** A code that lets one device in, shown once. */
  beginPairing: writes<Pairing>()('/api/devices/pairings', BeginPairing),
  /** Asked by a device that is not known yet; the answer brings the cookie that it is known by. */
  pairDevice: writes<{ name: string }>()('/api/devices/paired', PairDevice),
  revokeDevice: writes<Device[]>()('/api/devices/:id/revoked', RevokeDevice),
  setCode: writes<Person[]>()('/api/people/:id/code', SetCode),
  sayCode: writes<{ until: string }>()('/api/people/:id/session', SayCode),

  /** The event stream; `?after= the last event that is known. */
  live: reads<never>()('/api/live'),
  /** JSON Schemas of every request and calculation input. */
  schemas: reads<Record<string, object>>()('/api/schemas'),
  calculate: takes<CalculationResult>()('/api/calc/:name'),
} as const

/** What a paired device is known by; out of reach of scripts. */
export const DEVICE_COOKIE = 'moray_device'
/** What somebody who has said his code on a device is known by there. */
export const SESSION_COOKIE = 'moray_person'
/** Who does it; a person's id. */
export const PERSON_HEADER = 'x-moray-person'
/** A fresh id for every intended write: a repeated one answers from the present state, and writes nothing. */
export const REQUEST_HEADER = 'x-moray-request'
