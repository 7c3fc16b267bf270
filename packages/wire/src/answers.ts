import type {
  AnyKeptEntry,
  Bench,
  CareView,
  EarlierView,
  JobHead,
  JobPartsView,
  JobView,
  QuoteView,
  SealLine,
  ShimLine,
  StockLine,
  SupplierOffer,
  TodayView,
} from '@jubb/book';
import type { WorkingDescription, WorkingRun } from '@jubb/core';
import type { Difference, SheetFile, Tool } from '@jubb/sheet';
import type { BeginView, ExampleLine, LackingLine } from './begin.js';
import type { ToolView } from './crib.js';
import type { AnswerDue, MessageView, OfferView, SentQuote } from './quotes.js';
import type { CustomerLine, CustomerView } from './customers.js';
import type { BroughtView } from './lists.js';
import type { ChangeLine, PersonLine, SecondView } from './people.js';
import type { OrderView, StockView, SupplierView } from './stores.js';
import type { NetworkView, TabletLine } from './tablets.js';
import type {
  ChainView,
  ComebackView,
  EarlierReading,
  KnowHow,
  FileState,
  HealthView,
  IdentitySheet,
  ImportView,
  InstrumentView,
  LinesView,
  MadeTool,
  Problem,
  ProposalView,
  RevisionLine,
  SessionView,
  SheetLine,
  SheetView,
  ShopView,
  SightLine,
  TabletPeople,
  UnitHistory,
} from './views.js';
import type { WayInView } from './way-in.js';

/** Everything that the server answers with, by name. */
export interface Answers {
  AnyKeptEntry: AnyKeptEntry;
  BeginView: BeginView;
  Bench: Bench;
  Begun: { readonly revisionId: string };
  ChainView: ChainView;
  BroughtView: BroughtView;
  CareView: CareView;
  ChangeLine: ChangeLine;
  ComebackView: ComebackView;
  CustomerLine: CustomerLine;
  CustomerView: CustomerView;
  Difference: Difference;
  EarlierReading: EarlierReading;
  KnowHow: KnowHow;
  EarlierView: EarlierView;
  ExampleLine: ExampleLine;
  FileState: FileState;
  HealthView: HealthView;
  IdentitySheet: IdentitySheet;
  ImportView: ImportView;
  InstrumentView: InstrumentView;
  JobHead: JobHead;
  JobPartsView: JobPartsView;
  JobView: JobView;
  Kept: { readonly id: string };
  LackingLine: LackingLine;
  LinesView: LinesView;
  MadeTool: MadeTool;
  AnswerDue: AnswerDue;
  MessageView: MessageView;
  NetworkView: NetworkView;
  NewKey: { readonly key: string };
  OfferView: OfferView;
  OrderView: OrderView;
  PersonLine: PersonLine;
  ProposalView: ProposalView;
  QuoteView: QuoteView;
  RevisionLine: RevisionLine;
  Saved: { readonly version: number };
  /** A JSON Schema. */
  Schema: Readonly<Record<string, unknown>>;
  SentQuote: SentQuote;
  SecondView: SecondView;
  SessionView: SessionView;
  SheetFile: SheetFile;
  SheetLine: SheetLine;
  SheetView: SheetView;
  ShimLine: ShimLine;
  ShopView: ShopView;
  SightLine: SightLine;
  SealLine: SealLine;
  StockLine: StockLine;
  StockView: StockView;
  SupplierOffer: SupplierOffer;
  SupplierView: SupplierView;
  TabletLine: TabletLine;
  TabletPeople: TabletPeople;
  Text: string;
  TodayView: TodayView;
  Tool: Tool;
  ToolView: ToolView;
  UnitHistory: UnitHistory;
  WayInView: WayInView;
  WorkingDescription: WorkingDescription;
  WorkingRun: WorkingRun;
}

/** All that the document of the interface describes: the answers, and the refusal. */
export interface Documented extends Answers {
  Problem: Problem;
}
