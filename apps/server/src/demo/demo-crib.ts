import { daysOn, type Tool } from '@jubb/sheet';

/** A small crib, one wrench and one micrometer of it overdue. */
export function demoTools(): Omit<Tool, 'id'>[] {
  const due = (days: number): string => daysOn('UTC', Date.now(), days);
  const row = (
    tag: string,
    name: string,
    kind: string,
    quantity: Tool['quantity'],
    unit: string,
    low: number,
    high: number,
    resolution: number,
    u: number,
    s: number,
    days: number | null,
    length: number | null = null,
  ) => ({
    tag,
    name,
    kind,
    quantity,
    unit,
    low,
    high,
    resolution,
    u,
    s,
    length,
    calibrationDue: days === null ? null : due(days),
  });
  return [
    row('W3', 'Click wrench 20–200', 'torque-wrench', 'torque', 'N·m', 20, 200, 1, 2, 1.2, 110, 450),
    row('W1', 'Click wrench 5–25', 'torque-wrench', 'torque', 'N·m', 5, 25, 0.1, 0.3, 0.2, -20, 260),
    row('A1', 'Crowfoot 21 mm', 'crowfoot', 'length', 'mm', 0, 0, 1, 0.5, 0, null, 55),
    row('D2', 'Dial indicator 0–10', 'dial-indicator', 'length', 'mm', 0, 10, 0.005, 0.002, 0.003, 75),
    row('M2', 'Micrometer 0–25', 'micrometer', 'length', 'mm', 0, 25, 0.001, 0.0012, 0.001, 140),
    row('M3', 'Micrometer 25–50', 'micrometer', 'length', 'mm', 25, 50, 0.001, 0.0015, 0.001, 140),
    row('M4', 'Micrometer 50–75', 'micrometer', 'length', 'mm', 50, 75, 0.001, 0.0018, 0.001, -20),
    row('M5', 'Micrometer 50–75', 'micrometer', 'length', 'mm', 50, 75, 0.001, 0.0018, 0.001, 150),
    row('K1', 'Calliper 0–150', 'calliper', 'length', 'mm', 0, 150, 0.01, 0.012, 0.01, 200),
    row('K2', 'Calliper 0–300', 'calliper', 'length', 'mm', 0, 300, 0.01, 0.02, 0.015, 200),
    row('G1', 'Depth gauge 0–25', 'depth-gauge', 'length', 'mm', 0, 25, 0.01, 0.01, 0.01, 200),
    row('G3', 'Depth gauge 0–200', 'depth-gauge', 'length', 'mm', 0, 200, 0.01, 0.015, 0.012, 200),
    row('W4', 'Click wrench 2–25', 'torque-wrench', 'torque', 'N·m', 2, 25, 0.1, 0.25, 0.15, 90, 280),
    row('W5', 'Click wrench 80–400', 'torque-wrench', 'torque', 'N·m', 80, 400, 1, 4, 2.5, 160, 690),
    row('W6', 'Torque screwdriver 0.5–5', 'torque-wrench', 'torque', 'N·m', 0.5, 5, 0.05, 0.08, 0.05, 60, 120),
    row('W7', 'Digital wrench 10–135, with angle', 'torque-wrench', 'torque', 'N·m', 10, 135, 0.1, 0.6, 0.4, 120, 420),
    row('B1', 'Beam wrench 0–20', 'beam-wrench', 'torque', 'N·m', 0, 20, 0.1, 0.08, 0.06, 210, 300),
    row('B2', 'Spring balance and cord', 'spring-balance', 'torque', 'N·m', 0, 30, 0.1, 0.08, 0.08, 130),
    row('B3', 'Spring balance 0–500', 'spring-balance', 'force', 'N', 0, 500, 2, 1.5, 1.5, 130),
    row('G2', 'Bore gauge 10–160', 'bore-gauge', 'length', 'mm', 10, 160, 0.001, 0.003, 0.002, 95),
    row('F1', 'Feeler gauges 0.02–3', 'feeler-gauge', 'length', 'mm', 0, 3, 0.01, 0.01, 0.008, null),
    row('R1', 'Steel rule 500', 'rule', 'length', 'mm', 0, 500, 0.5, 0.2, 0.15, null),
    row('A2', 'Protractor', 'protractor', 'angle', '°', 0, 180, 0.5, 0.3, 0.3, null),
    row('P1', 'Test gauge, class 0.6', 'pressure-gauge', 'pressure', 'kPa', 0, 0, 0.001, 0.004, 0.002, 40),
    row('E1', 'Multimeter', 'multimeter', 'voltage', 'V', 0, 0, 0.01, 0.01, 0.005, 250),
    row('L1', 'Alternator load stand', 'load-stand', 'current', 'A', 0, 400, 0.5, 0.6, 0.4, 120),
    row('L2', 'Balance stand', 'balance-stand', 'unbalance', 'g·mm', 0, 0, 0.01, 0.02, 0.02, 45),
    row('T1', 'Stopwatch', 'stopwatch', 'time', 's', 0, 0, 1, 0.5, 0.5, null),
    row('S1', 'Bench scale 5 kg', 'scale', 'mass', 'g', 0, 5, 0.001, 0.001, 0.0005, 300),
    row('P9', 'Low pressure and vacuum gauge 0–100 kPa', 'pressure-gauge', 'pressure', 'kPa', 0, 0.1, 0.0002, 0.0005, 0.0004, 150),
    row('B9', 'Spring balance 0–20', 'spring-balance', 'force', 'N', 0, 20, 0.1, 0.1, 0.08, 170),
    row('T2', 'Probe thermometer −20–200', 'thermometer', 'temperature', '°C', -20, 200, 0.1, 0.6, 0.3, 260),
  ];
}

/** What else has come into the crib in two years: more of the same, and what drives and carries. */
export function moreTools(): Omit<Tool, 'id'>[] {
  const due = (days: number): string => daysOn('UTC', Date.now(), days);
  const measuring = (
    tag: string,
    name: string,
    kind: string,
    [quantity, unit]: readonly [Tool['quantity'], string],
    [low, high]: readonly [number, number],
    [resolution, u, s]: readonly [number, number, number],
    days: number,
    length: number | null = null,
  ): Omit<Tool, 'id'> => ({ tag, name, kind, quantity, unit, low, high, resolution, u, s, length, calibrationDue: due(days) });
  const mm = ['length', 'mm'] as const;
  const nm = ['torque', 'N·m'] as const;
  /** Of an inside and an outside diameter, mm; nobody calibrates one. */
  const plain = (tag: string, name: string, kind: string, low: number, high: number, length: number | null = null): Omit<Tool, 'id'> => ({
    tag,
    name,
    kind,
    quantity: 'length',
    unit: 'mm',
    low,
    high,
    resolution: 1,
    u: 0.5,
    s: 0,
    length,
    calibrationDue: null,
  });
  return [
    measuring('W8', 'Click wrench 20–100', 'torque-wrench', nm, [20, 100], [0.5, 1.2, 0.8], 75, 400),
    measuring('W9', 'Click wrench 150–800', 'torque-wrench', nm, [150, 800], [5, 9, 6], 210, 1150),
    measuring('B4', 'Beam wrench 0–70', 'beam-wrench', nm, [0, 70], [1, 0.6, 0.5], 190, 450),
    measuring('D3', 'Dial indicator 0–1, lever', 'dial-indicator', mm, [0, 1], [0.002, 0.001, 0.0015], 60),
    measuring('D4', 'Dial indicator 0–30', 'dial-indicator', mm, [0, 30], [0.01, 0.006, 0.006], -35),
    measuring('M6', 'Micrometer 75–100', 'micrometer', mm, [75, 100], [0.001, 0.002, 0.0012], 140),
    measuring('M7', 'Depth micrometer 0–100', 'depth-gauge', mm, [0, 100], [0.001, 0.003, 0.002], 140),
    measuring('K3', 'Calliper 0–200, round jaws', 'calliper', mm, [0, 200], [0.01, 0.015, 0.012], 30),
    measuring('G4', 'Bore gauge 6–18', 'bore-gauge', mm, [6, 18], [0.001, 0.003, 0.002], 95),
    measuring('P2', 'Test gauge 0–250 bar', 'pressure-gauge', ['pressure', 'kPa'], [0, 25_000], [50, 60, 40], 12),
    measuring('E2', 'Clamp meter', 'multimeter', ['current', 'A'], [0, 400], [0.1, 0.5, 0.3], 250),
    measuring('S2', 'Fine scale 200 g', 'scale', ['mass', 'g'], [0, 0.2], [0.00001, 0.00002, 0.00001], 300),
    plain('A3', 'Crowfoot 17 mm', 'crowfoot', 0, 0),
    plain('A4', 'Crowfoot 24 mm', 'crowfoot', 0, 0),
    ...[
      [35, 28],
      [42, 34],
      [47, 38],
      [52, 42],
      [62, 50],
      [72, 58],
      [80, 66],
      [90, 74],
    ].map(([outside = 0, inside = 0], at) => plain(`V${at + 1}`, `Seal driver ${outside}`, 'driver', inside, outside - 0.5)),
    ...[
      [26, 20],
      [32, 25],
      [37, 30],
      [42, 35],
      [48, 40],
      [58, 50],
    ].map(([outside = 0, inside = 0], at) =>
      plain(`H${at + 1}`, `Tube ${inside} × ${outside}, for inner rings`, 'tube', inside, outside, 140),
    ),
    measuring('Y1', 'Bench press 200 kN', 'press', ['force', 'N'], [0, 200_000], [1000, 2000, 1000], 200),
    plain('Z1', 'Two-leg puller 150', 'puller', 0, 150),
    plain('Z2', 'Three-leg puller 250', 'puller', 0, 250),
    plain('Z3', 'Bearing separator 30–60', 'puller', 30, 60),
    plain('Z4', 'Slide hammer', 'puller', 0, 0),
  ];
}

/** Tags of the tools that send by themselves. */
export const DEMO_INSTRUMENTS: readonly string[] = ['K1', 'D2', 'W3', 'W7', 'B3', 'S1', 'M4', 'E1'];
