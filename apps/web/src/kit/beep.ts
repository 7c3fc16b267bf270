const LOUDNESS = 0.2;

let sound: AudioContext | undefined;

/** A tone. A browser that was not touched yet may keep silent. */
export function beep(hertz: number, seconds: number): void {
  if (!('AudioContext' in window)) return;
  sound ??= new AudioContext();
  const tone = sound.createOscillator();
  const loudness = sound.createGain();
  loudness.gain.value = LOUDNESS;
  tone.frequency.value = hertz;
  tone.connect(loudness).connect(sound.destination);
  tone.start();
  tone.stop(sound.currentTime + seconds);
}
