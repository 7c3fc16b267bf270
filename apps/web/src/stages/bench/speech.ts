import { useEffect } from 'react';

export const canSpeak = 'speechSynthesis' in window;

/** Says what is to be done whenever it changes, if that is wanted and the browser has a voice. */
export function useSpeech(words: string, wanted: boolean): void {
  useEffect(() => {
    if (!wanted || !canSpeak || words === '') return;
    const said = new SpeechSynthesisUtterance(words);
    said.lang = 'en-GB';
    speechSynthesis.speak(said);
    return () => speechSynthesis.cancel();
  }, [words, wanted]);
}
