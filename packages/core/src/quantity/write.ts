import { formatQuantity, type Window } from './format.js';

/** Figures of one quantity each, as a working writes them in its sentences; all in base units. */
export const mm = (length: number, window: Window = {}): string => formatQuantity(length, 'length', 'mm', window);
export const microns = (length: number): string => formatQuantity(length, 'length', 'µm');
export const newtonMetres = (torque: number, window: Window = {}): string => formatQuantity(torque, 'torque', 'N·m', window);
export const degrees = (angle: number): string => formatQuantity(angle, 'angle');
export const celsius = (temperature: number): string => formatQuantity(temperature, 'temperature');
export const percent = (share: number): string => formatQuantity(share, 'ratio', '%');
/** Kilonewtons from a thousand on. */
export const newtons = (force: number): string => formatQuantity(force, 'force');
export const megapascals = (pressure: number): string => formatQuantity(pressure, 'pressure');
