/** A ring or a shaft of one metal: diameters in mm, modulus in MPa. */
export interface Cylinder {
  readonly inside: number;
  readonly outside: number;
  readonly modulusMPa: number;
  readonly poisson: number;
}

/**
 * Contact pressure of a press fit, MPa, by Lamé's equations for thick cylinders (Shigley, 3-56):
 * p = δ / (d·[((D² + d²)/(D² − d²) + νo)/Eo + ((d² + di²)/(d² − di²) − νi)/Ei]).
 *
 * @param interference in diameter, mm
 * @param seat diameter of the fit, mm
 */
export function contactPressure(interference: number, seat: number, hub: Cylinder, shaft: Cylinder): number {
  const outer = (hub.outside ** 2 + seat ** 2) / (hub.outside ** 2 - seat ** 2);
  const inner = (seat ** 2 + shaft.inside ** 2) / (seat ** 2 - shaft.inside ** 2);
  return interference / (seat * ((outer + hub.poisson) / hub.modulusMPa + (inner - shaft.poisson) / shaft.modulusMPa));
}

/**
 * Equivalent stress at the bore of the hub, MPa, after von Mises: hoop stress and contact pressure together,
 * √(σt² + σt·p + p²), free endwise.
 */
export function hubMises(pressureMPa: number, seat: number, outside: number): number {
  const hoop = hoopStress(pressureMPa, seat, outside);
  return Math.sqrt(hoop * hoop + hoop * pressureMPa + pressureMPa * pressureMPa);
}

/** The same where the shaft is loaded most: at its bore 2·p·d²/(d² − di²), p alone in a solid one. */
export function shaftMises(pressureMPa: number, seat: number, inside: number): number {
  return inside === 0 ? pressureMPa : (2 * pressureMPa * seat ** 2) / (seat ** 2 - inside ** 2);
}

/** Stress round the bore of the hub, MPa; pulling. */
export function hoopStress(pressureMPa: number, seat: number, outside: number): number {
  return (pressureMPa * (outside ** 2 + seat ** 2)) / (outside ** 2 - seat ** 2);
}
