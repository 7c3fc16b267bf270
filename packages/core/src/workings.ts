import { nut } from './bearings/nut.js';
import { verdict } from './measuring/verdict.js';
import { adapter } from './torque/adapter.js';
import { pattern } from './torque/pattern.js';
import { convert } from './units/convert.js';
import { Registry } from './working/registry.js';

/** Every working of the core. A new one is its own file and one line here. */
export const workings = new Registry([convert, adapter, pattern, nut, verdict]);
