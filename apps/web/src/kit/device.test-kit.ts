// What every browser has and Node has not; the web's unit tests begin with it.
Object.assign(globalThis, { localStorage: { getItem: () => null, setItem: () => undefined, removeItem: () => undefined } });
