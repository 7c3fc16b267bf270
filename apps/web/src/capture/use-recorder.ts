import { LONGEST_CLIP_S } from '@jubb/sheet';
import { useEffect, useRef, useState } from 'react';

const AUDIO = { mimeType: 'audio/webm;codecs=opus', audioBitsPerSecond: 32_000 };
const VIDEO = { mimeType: 'video/webm;codecs=vp8,opus', audioBitsPerSecond: 32_000, videoBitsPerSecond: 600_000 };
const SMALL = { width: { ideal: 640 }, height: { ideal: 480 }, frameRate: { ideal: 15 } };

export interface Recording {
  readonly blob: Blob;
  readonly seconds: number;
}

interface Recorder {
  /** Seconds so far; undefined when nothing is recorded. */
  readonly running: number | undefined;
  readonly problem: string | undefined;
  readonly start: (withPicture: boolean) => void;
  readonly stop: () => void;
}

/** Records what is said, or seen and heard, till it is stopped or its time is up. */
export function useRecorder(onDone: (recording: Recording) => void): Recorder {
  const [running, setRunning] = useState<number>();
  const [problem, setProblem] = useState<string>();
  const recorder = useRef<MediaRecorder>(undefined);
  /** Let go before the microphone was there. */
  const wanted = useRef(false);
  /** When it was let go: the recorder says so only some time later. */
  const ended = useRef(0);
  const stop = (): void => {
    wanted.current = false;
    if (recorder.current?.state !== 'recording') return;
    ended.current = performance.now();
    recorder.current.stop();
  };
  useEffect(() => stop, []);
  const start = (withPicture: boolean): void => {
    if (wanted.current) return;
    wanted.current = true;
    setProblem(undefined);
    void record(withPicture).catch((error: unknown) => {
      wanted.current = false;
      setProblem(refusal(error));
    });
  };
  const record = async (withPicture: boolean): Promise<void> => {
    if (!('mediaDevices' in navigator)) throw new Error('no microphone');
    const sound = await navigator.mediaDevices.getUserMedia({ audio: true, ...(withPicture ? { video: SMALL } : {}) });
    const own = new MediaRecorder(sound, withPicture ? VIDEO : AUDIO);
    const parts: Blob[] = [];
    let began = 0;
    let tick: ReturnType<typeof setInterval> | undefined;
    own.ondataavailable = ({ data }) => parts.push(data);
    own.onstart = () => {
      began = performance.now();
      setRunning(0);
      tick = setInterval(() => {
        const seconds = (performance.now() - began) / 1000;
        setRunning(seconds);
        if (seconds >= LONGEST_CLIP_S) stop();
      }, 100);
      if (!wanted.current) own.stop();
    };
    own.onstop = () => {
      clearInterval(tick);
      for (const track of sound.getTracks()) track.stop();
      setRunning(undefined);
      const seconds = Math.min(LONGEST_CLIP_S, ((ended.current > began ? ended.current : performance.now()) - began) / 1000);
      onDone({ blob: new Blob(parts, { type: own.mimeType }), seconds: Math.max(0.1, Number(seconds.toFixed(1))) });
    };
    recorder.current = own;
    own.start();
  };
  return { running, problem, start, stop };
}

function refusal(error: unknown): string {
  const name = error instanceof DOMException ? error.name : '';
  if (name === 'NotAllowedError') return 'The microphone is not allowed for this page; allow it in the browser’s settings.';
  return 'No microphone can be used here. It takes one, and a page that came over https or from this machine.';
}
