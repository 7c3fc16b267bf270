/** What is kept of a machine's way in on this device goes by this. */
export const wayInKey = (machineId: string): readonly string[] => ['way-in', machineId];
