/** Who is logged in where. */
export interface LogInLine {
  /** What the session is called where its id must not be. */
  readonly mark: string;
  readonly person: string;
  /** Others who proved themselves there, too. */
  readonly beside: readonly string[];
  readonly since: string;
  /** It ends by itself. */
  readonly until: string;
  /** The one that asks. */
  readonly isThis: boolean;
}

/** A tablet or screen of the shop, and who is in there. */
export interface TabletLine {
  readonly id: string;
  readonly name: string;
  readonly addedBy: string;
  readonly addedAt: string;
  /** Whose PIN will do there. */
  readonly people: readonly string[];
  /** Instruments that send to it. */
  readonly instruments: readonly string[];
  readonly logIns: readonly LogInLine[];
}

/** How tablets come to this shop. */
export interface NetworkView {
  /** Addresses by https; none where the shop is served to its own machine alone. */
  readonly secure: readonly string[];
  /** Where a tablet comes that does not trust the shop yet. */
  readonly trust: string | null;
  /** SHA-256 of the shop's own authority, as a tablet shows it. */
  readonly fingerprint: string | null;
  /** Whether this request came by https. */
  readonly isSecure: boolean;
}
