import { PostEntries, QuoteBody } from '@jubb/book';
import {
  BookInBody,
  DraftBackBody,
  FirstRunBody,
  ImportSheetBody,
  LoginBody,
  NewSheetBody,
  PairBody,
  PatchJobBody,
  PinBody,
  SaveDraftBody,
  SecondBody,
  SecondOffBody,
  SettleBody,
  SwapBody,
  TabletBody,
} from './bodies.js';
import { LendBody, RetireBody, StudyBody, ToolBody, ToolChangeBody, ToolCheckBody, ToolPictureBody } from './crib.js';
import { AnswerBody } from './quotes.js';
import { LicenceBody, NewPersonBody, PasswordBody, PersonBody } from './people.js';
import { HoursBody, ShopBody } from './shop.js';
import { WayInBody } from './way-in.js';
import { CustomerBody, MergeBody, OwnerBody, PlacedBody } from './customers.js';
import { BringBody } from './lists.js';
import {
  AcceptBody,
  ConfirmBody,
  FaultBody,
  GoodsInBody,
  OfferBody,
  SupplierBody,
  SupplierChangeBody,
  MoveBody,
  SettleCountBody,
  StockChangeBody,
  StockItemBody,
  WantBody,
} from './stores.js';

/** Everything that clients send, by the name of its class: the server checks it by that class. */
export const BODIES = {
  AcceptBody,
  AnswerBody,
  BookInBody,
  BringBody,
  ConfirmBody,
  CustomerBody,
  DraftBackBody,
  FaultBody,
  FirstRunBody,
  GoodsInBody,
  HoursBody,
  ImportSheetBody,
  LendBody,
  LicenceBody,
  LoginBody,
  MergeBody,
  MoveBody,
  NewPersonBody,
  NewSheetBody,
  OfferBody,
  OwnerBody,
  PairBody,
  PasswordBody,
  PatchJobBody,
  PersonBody,
  PinBody,
  PlacedBody,
  PostEntries,
  QuoteBody,
  RetireBody,
  SaveDraftBody,
  SecondBody,
  SecondOffBody,
  SettleBody,
  SettleCountBody,
  ShopBody,
  StockChangeBody,
  StockItemBody,
  StudyBody,
  SupplierBody,
  SupplierChangeBody,
  SwapBody,
  TabletBody,
  ToolBody,
  ToolChangeBody,
  ToolCheckBody,
  ToolPictureBody,
  WantBody,
  WayInBody,
} as const;

export type Bodies = { readonly [N in keyof typeof BODIES]: InstanceType<(typeof BODIES)[N]> };
