import type { SheetBody } from '@moray/core/drives/own/body'
import type { DriveSheet } from '@moray/core/drives/sheet'
import type { Copies, CopyNotice } from './copies.ts'
import type { ForeignHead, PastJob, SearchReply, UnitsBefore } from './found.ts'
import type { JobFile } from './job-file.ts'
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
import type { BringBackCopy, MakeCopy, SetCopies } from './requests/copies.ts'
import type { AddLine, AddPieces, CorrectThickness, CountLine } from './requests/drawer.ts'
import type { AddGauge, CalibrateGauge, ChangeGauge, RetireGauge } from './requests/gauges.ts'
import type { ChangeLife, CorrectJob, OpenJob } from './requests/life.ts'
import type {
  ChangeRowPart,
  GivePartGrade,
  LayInRow,
  MakeEstimate,
  OrderRow,
  RecordApproval,
  SayFinding,
  SayOutcome,
} from './requests/parts.ts'
import type {
  AcceptLine,
  AgreeToDeparture,
  CloseStep,
  CorrectStep,
  KeepDraft,
  SeeRoute,
  TakeBack,
  UndoStep,
} from './requests/route.ts'
import type { AddCase, AddOpenItem, CloseOpenItem, MoveJob, OpenLoop, SetScope } from './requests/scope.ts'
import type { RemoveOwner } from './requests/privacy.ts'
import type { SupersedeReading, TakeReading } from './requests/reading.ts'
import type {
  AcceptBuild,
  EnterStack,
  MarkPattern,
  TakePlan,
  WithdrawAcceptance,
} from './requests/setting.ts'
import type {
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
import type { BeginPairing, PairDevice, RevokeDevice, SayCode, SetCode } from './requests/devices.ts'
import type {
  AddPerson,
  ChangePerson,
  ChooseSchool,
  LeaveDemo,
  SetLikelihood,
  SetShopRules,
} from './requests/shop.ts'

const job = <Body extends object>() => writes<Body, JobReply>()
const line = <Body extends object>() => writes<Body, DrawerLine>()
const gauge = <Body extends object>() => writes<Body, Gauge>()
const shop = <Body extends object>() => writes<Body, Shop>()
const sheet = <Body extends object>() => writes<Body, SheetDraft>()

/** The whole HTTP interface. Paths stand here and nowhere else; the classes that check the bodies stand in bodies.ts, so that a page that only reads loads none. */
export const endpoints = {
  health: reads<Health>()('/api/health'),
  people: reads<Person[]>()('/api/people'),
  addPerson: writes<AddPerson, Person[]>()('/api/people'),
  changePerson: writes<ChangePerson, Person[]>()('/api/people/:id'),

  /** `?search=`, `?state=open|over`, `?before=` the `next` of the page before. */
  jobs: reads<JobPage>()('/api/jobs'),
  units: reads<KnownUnit[]>()('/api/units'),
  /** `?search=` words that all have to stand in a job, a record of another shop, or a drive. */
  search: reads<SearchReply>()('/api/search'),
  /** Every job of a unit; `?serial=`. */
  unitJobs: reads<PastJob[]>()('/api/units/:sheet/jobs'),
  openJob: job<OpenJob>()('/api/jobs'),
  job: reads<JobReply>()('/api/jobs/:id'),
  unitsBefore: reads<UnitsBefore>()('/api/jobs/:id/before'),
  /** Everything of one job: see docs/job.schema.json. */
  jobZip: reads<Uint8Array>()('/api/jobs/:id/zip'),
  foreignJobs: reads<ForeignHead[]>()('/api/foreign'),
  foreignJob: reads<JobFile>()('/api/foreign/:id'),
  /** Takes the zip of a job from another Moray. */
  bringForeign: takes<ForeignHead[]>()('/api/foreign'),
  /** What is kept of an owner; `?owner=`. */
  ownerZip: reads<Uint8Array>()('/api/owner/zip'),
  events: reads<EventEntry[]>()('/api/jobs/:id/events'),
  closings: reads<ClosingRecord[]>()('/api/jobs/:id/closings'),
  routeChanges: reads<RouteChanges>()('/api/jobs/:id/route-changes'),
  faultHistory: reads<FaultCase[]>()('/api/jobs/:id/fault-history'),
  /** As this unit left here the last time; null when it never did. */
  referencePatterns: reads<ReferencePattern[]>()('/api/jobs/:id/reference-patterns'),
  lastBuilt: reads<LastBuilt | null>()('/api/jobs/:id/last-built'),

  enterStack: job<EnterStack>()('/api/jobs/:id/stacks'),
  takeReading: job<TakeReading>()('/api/jobs/:id/readings'),
  supersedeReading: job<SupersedeReading>()('/api/jobs/:id/readings/:reading/supersede'),
  takePlan: job<TakePlan>()('/api/jobs/:id/trials'),
  markPattern: job<MarkPattern>()('/api/jobs/:id/patterns'),
  acceptBuild: job<AcceptBuild>()('/api/jobs/:id/acceptance'),
  withdrawAcceptance: job<WithdrawAcceptance>()('/api/jobs/:id/acceptance/withdraw'),
  closeStep: job<CloseStep>()('/api/jobs/:id/steps'),
  correctStep: job<CorrectStep>()('/api/jobs/:id/steps/:closing/correct'),
  takeBack: job<TakeBack>()('/api/jobs/:id/steps/:closing/take-back'),
  undoStep: job<UndoStep>()('/api/jobs/:id/steps/:closing/undone'),
  acceptLine: job<AcceptLine>()('/api/jobs/:id/lines'),
  agree: job<AgreeToDeparture>()('/api/jobs/:id/agreements'),
  seeRoute: job<SeeRoute>()('/api/jobs/:id/route-seen'),
  keepDraft: writes<KeepDraft, Nothing>()('/api/jobs/:id/draft'),
  layInRow: job<LayInRow>()('/api/jobs/:id/row'),
  orderRow: job<OrderRow>()('/api/jobs/:id/row/order'),
  changeRowPart: job<ChangeRowPart>()('/api/jobs/:id/row/:part'),
  gradePart: job<GivePartGrade>()('/api/jobs/:id/grades'),
  sayFinding: job<SayFinding>()('/api/jobs/:id/findings'),
  sayOutcome: job<SayOutcome>()('/api/jobs/:id/outcome'),
  makeEstimate: job<MakeEstimate>()('/api/jobs/:id/estimates'),
  recordApproval: job<RecordApproval>()('/api/jobs/:id/approvals'),
  chooseJobSchool: job<ChooseSchool>()('/api/jobs/:id/schools'),
  correctJob: job<CorrectJob>()('/api/jobs/:id/details'),
  addFigure: job<AddFigure>()('/api/jobs/:id/figures'),
  settleEdge: job<SettleEdge>()('/api/jobs/:id/edges'),
  adoptSheet: job<AdoptSheet>()('/api/jobs/:id/sheet'),
  changeLife: job<ChangeLife>()('/api/jobs/:id/life'),
  setScope: job<SetScope>()('/api/jobs/:id/scope'),
  addOpenItem: job<AddOpenItem>()('/api/jobs/:id/open-items'),
  closeOpenItem: job<CloseOpenItem>()('/api/jobs/:id/open-items/:item'),
  openLoop: job<OpenLoop>()('/api/jobs/:id/loops'),
  addCase: job<AddCase>()('/api/jobs/:id/cases'),
  moveJob: job<MoveJob>()('/api/jobs/:id/drive'),

  shop: reads<Shop>()('/api/shop'),
  chooseShopSchool: shop<ChooseSchool>()('/api/shop/schools'),
  setShopRules: shop<SetShopRules>()('/api/shop/rules'),
  setLikelihood: shop<SetLikelihood>()('/api/shop/likelihoods'),
  removeOwner: shop<RemoveOwner>()('/api/owner/removed'),
  leaveDemo: shop<LeaveDemo>()('/api/shop/leave-demo'),

  copies: reads<Copies>()('/api/copies'),
  copyNotice: reads<CopyNotice | null>()('/api/copies/notice'),
  setCopies: writes<SetCopies, Copies>()('/api/copies/settings'),
  /** Begins; `copies` says how it went. */
  makeCopy: writes<MakeCopy, Copies>()('/api/copies'),
  /** Begins to bring one of the folder back into this empty shop, on the machine itself. */
  bringBackCopy: writes<BringBackCopy, Copies>()('/api/copies/back'),
  /** The same with a file that is sent. */
  sendCopy: takes<Copies>()('/api/copies/sent'),

  drawer: reads<DrawerLine[]>()('/api/drawer'),
  movements: reads<DrawerMovement[]>()('/api/drawer/:id/movements'),
  addLine: line<AddLine>()('/api/drawer'),
  addPieces: line<AddPieces>()('/api/drawer/:id/add'),
  countLine: line<CountLine>()('/api/drawer/:id/count'),
  correctThickness: line<CorrectThickness>()('/api/drawer/:id/thickness'),

  gauges: reads<Gauge[]>()('/api/gauges'),
  gaugeHistory: reads<GaugeHistory>()('/api/gauges/:id/history'),
  addGauge: gauge<AddGauge>()('/api/gauges'),
  changeGauge: gauge<ChangeGauge>()('/api/gauges/:id/figures'),
  calibrateGauge: gauge<CalibrateGauge>()('/api/gauges/:id/calibrations'),
  retireGauge: gauge<RetireGauge>()('/api/gauges/:id/retired'),
  /** The newest version of every sheet; of one that has none yet, its draft. */
  drives: reads<DriveEntry[]>()('/api/drives'),
  drive: reads<DriveSheet>()('/api/drives/:id'),
  addDrive: sheet<AddDrive>()('/api/drives'),
  draft: reads<SheetDraft>()('/api/drives/:id/draft'),
  beginDraft: sheet<BeginDraft>()('/api/drives/:id/draft'),
  setFigure: sheet<SetFigure>()('/api/drives/:id/figures'),
  putRow: sheet<PutRow>()('/api/drives/:id/rows'),
  putRows: sheet<PutRows>()('/api/drives/:id/rows/several'),
  moveRow: sheet<MoveRow>()('/api/drives/:id/rows/moved'),
  undoChange: sheet<UndoChange>()('/api/drives/:id/undone'),
  putRemarks: sheet<PutRemarks>()('/api/drives/:id/remarks'),
  checkFigures: sheet<CheckFigures>()('/api/drives/:id/checked'),
  publishSheet: writes<PublishSheet, SheetVersion[]>()('/api/drives/:id/versions'),
  versions: reads<SheetVersion[]>()('/api/drives/:id/versions'),
  /** The body of a version, as it leaves the shop. */
  sheetFile: reads<SheetBody>()('/api/drives/:id/versions/:version/file'),
  /** What accepted units have taught; `?without=` the job that asks. */
  experience: reads<SheetExperience>()('/api/drives/:id/experience'),
  importSheet: sheet<ImportSheet>()('/api/sheets'),
  importList: sheet<ImportList>()('/api/drives/:id/lists'),
  exportList: reads<string>()('/api/drives/:id/lists/:list'),
  /** Never changes: what it says may be kept for ever. */
  driveVersion: reads<DriveSheet>()('/api/drives/:id/versions/:version'),

  /** Takes the bytes of a picture; `?subject=`, `?of=`, `?note=`. */
  attach: takes<JobReply>()('/api/jobs/:id/files'),
  file: reads<Uint8Array>()('/api/files/:hash'),
  devices: reads<Device[]>()('/api/devices'),
  /** A code that lets one device in, shown once. */
  beginPairing: writes<BeginPairing, Pairing>()('/api/devices/pairings'),
  /** Asked by a device that is not known yet; the answer brings the cookie that it is known by. */
  pairDevice: writes<PairDevice, { name: string }>()('/api/devices/paired'),
  revokeDevice: writes<RevokeDevice, Device[]>()('/api/devices/:id/revoked'),
  setCode: writes<SetCode, Person[]>()('/api/people/:id/code'),
  sayCode: writes<SayCode, { until: string }>()('/api/people/:id/session'),

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
