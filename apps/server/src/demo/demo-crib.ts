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
    row('L1', 'Alternator load stand', 'load-stand', 'current', 'A', 0, 200, 0.5, 0.6, 0.4, 120),
    row('L2', 'Balance stand', 'balance-stand', 'unbalance', 'g·mm', 0, 0, 0.01, 0.02, 0.02, 45),
    row('T1', 'Stopwatch', 'stopwatch', 'time', 's', 0, 0, 1, 0.5, 0.5, null),
    row('S1', 'Bench scale 5 kg', 'scale', 'mass', 'g', 0, 5, 0.001, 0.001, 0.0005, 300),
  ];
}

/** Tags of the tools that send by themselves. */
export const DEMO_INSTRUMENTS: readonly string[] = ['K1', 'D2', 'W3', 'W7', 'B3', 'S1', 'M4', 'E1'];
