import { nut } from './bearings/nut.js';
import { ratio } from './gears/ratio.js';
import { variant } from './identify/variant.js';
import { verdict } from './measuring/verdict.js';
import { areas } from './threads/areas.js';
import { identify } from './threads/identify.js';
import { adapter } from './torque/adapter.js';
import { breakaway } from './torque/breakaway.js';
import { pattern } from './torque/pattern.js';
import { convert } from './units/convert.js';
import { Registry } from './working/registry.js';

/** Every working of the core. A new one is its own file and one line here. */
export const workings = new Registry([convert, identify, areas, adapter, pattern, breakaway, nut, ratio, verdict, variant]);
