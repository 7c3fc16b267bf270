import type { ReactElement } from 'react';
import { KEYMAP, type KeyName } from './keymap.ts';

/** The key of an act, beside its words. */
export function KeyCap({ of }: { readonly of: KeyName }): ReactElement {
  return <kbd>{KEYMAP[of].shown}</kbd>;
}
