import { LONGEST_CLIP_S } from '@jubb/sheet';
import { useEffect, useId, useState, type KeyboardEvent, type ReactElement } from 'react';
import Button from 'react-bootstrap/Button';
import FormLabel from 'react-bootstrap/FormLabel';
import FormControl from 'react-bootstrap/FormControl';
import { Dialog } from '../kit/dialog.ts';
import { keepClip } from './keep-file.ts';
import { useRecorder, type Recording } from './use-recorder.ts';
import { Tick } from '../kit/tick.tsx';
import './capture.scss';

export interface KeptClip {
  readonly file: string;
  readonly sort: 'audio' | 'video';
  readonly seconds: number;
  readonly words: string;
}

interface TalkProps {
  /** What the clip is called unless another name is typed. */
  readonly about: string;
  readonly onKeep: (clip: KeptClip) => void;
  readonly onClose: () => void;
}

/** Hold to talk: as long as the key is held it records, up to twenty seconds; then it is heard, named and kept. */
export function Talk({ about, onKeep, onClose }: TalkProps): ReactElement {
  const [withPicture, setWithPicture] = useState(false);
  const [recording, setRecording] = useState<Recording & { url: string }>();
  const [words, setWords] = useState(about);
  const [problem, setProblem] = useState<string>();
  const id = useId();
  const recorder = useRecorder((made) => setRecording({ ...made, url: URL.createObjectURL(made.blob) }));
  useEffect(() => () => URL.revokeObjectURL(recording?.url ?? ''), [recording]);
  const { running } = recorder;
  const sort = withPicture ? 'video' : 'audio';
  const keep = async (): Promise<void> => {
    if (!recording) return;
    try {
      const { sha } = await keepClip(recording.blob);
      onKeep({ file: sha, sort, seconds: recording.seconds, words: words.trim() || about });
    } catch (error) {
      setProblem((error as Error).message);
    }
  };
  const isHold = ({ key }: KeyboardEvent): boolean => key === ' ' || key === 'Enter';
  return (
    <Dialog show centered animation={false} onHide={onClose} aria-labelledby={`${id}-title`} restoreFocus>
      <Dialog.Header closeButton>
        <Dialog.Title as="h2" id={`${id}-title`}>
          Talk
        </Dialog.Title>
      </Dialog.Header>
      <Dialog.Body>
        <Button
          autoFocus
          variant="plain"
          className={`talk-key ${running === undefined ? '' : 'on'}`}
          onPointerDown={() => recorder.start(withPicture)}
          onPointerUp={recorder.stop}
          onPointerCancel={recorder.stop}
          onKeyDown={(event) => {
            if (!isHold(event)) return;
            event.preventDefault();
            if (!event.repeat) recorder.start(withPicture);
          }}
          onKeyUp={(event) => isHold(event) && recorder.stop()}
        >
          {running === undefined ? (recording ? 'Hold to say it again' : 'Hold to talk') : `${Math.floor(running)} of ${LONGEST_CLIP_S} s`}
        </Button>
        <Tick
          className="mt-2"
          checked={withPicture}
          onChange={(event) => {
            setWithPicture(event.target.checked);
            setRecording(undefined);
          }}
        >
          With the camera
        </Tick>
        {(recorder.problem ?? problem) ? (
          <p className="v-out" role="alert">
            {recorder.problem ?? problem}
          </p>
        ) : null}
        {recording ? (
          <>
            {sort === 'audio' ? (
              <audio controls src={recording.url} aria-label="What was said" />
            ) : (
              <video controls src={recording.url} aria-label="What was taken" className="clip" />
            )}
            <FormLabel className="mt-2" htmlFor={`${id}-words`}>
              What it is about
            </FormLabel>
            <FormControl id={`${id}-words`} maxLength={200} value={words} onChange={(event) => setWords(event.target.value)} />
          </>
        ) : null}
      </Dialog.Body>
      <Dialog.Footer>
        <Button variant="plain" onClick={onClose}>
          Leave it
        </Button>
        <Button variant="primary" disabled={!recording || running !== undefined} onClick={() => void keep()}>
          Keep {recording ? `${Math.round(recording.seconds)} s` : 'it'}
        </Button>
      </Dialog.Footer>
    </Dialog>
  );
}
