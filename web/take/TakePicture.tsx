import { useEffect, useRef, useState } from 'react';
import { PHOTO_TYPES, sendPhoto } from '../api/photos';
import { PlainButton } from '../ui/PlainButton';
import { TAKE } from '../together/words';
import { moveTake } from './takes';
import type { Take } from '@emery/core/api';

/** The far camera at its best: what is looked at is an engine, not who holds the phone. */
const CAMERA = { video: { facingMode: 'environment', width: { ideal: 3840 }, height: { ideal: 2160 } } };

/** Opens the camera at once; where it does not open, the phone's own camera does. */
function useCamera() {
  const video = useRef<HTMLVideoElement>(null);
  const [state, setState] = useState<'opening' | 'open' | 'none'>('opening');
  useEffect(() => {
    let stream: MediaStream | null = null;
    let gone = false;
    const devices = navigator.mediaDevices as MediaDevices | undefined;
    (devices?.getUserMedia(CAMERA) ?? Promise.reject(new Error('none'))).then(
      (opened) => {
        stream = opened;
        const shown = video.current;
        if (gone || !shown) return opened.getTracks().forEach((track) => track.stop());
        shown.srcObject = opened;
        void shown.play().catch(() => undefined);
        setState('open');
      },
      () => gone || setState('none'),
    );
    return () => {
      gone = true;
      stream?.getTracks().forEach((track) => track.stop());
    };
  }, []);
  /** What the camera sees now, as a file. */
  const shoot = async (): Promise<File | null> => {
    const shown = video.current;
    if (!shown || shown.videoWidth === 0) return null;
    const canvas = document.createElement('canvas');
    [canvas.width, canvas.height] = [shown.videoWidth, shown.videoHeight];
    canvas.getContext('2d')?.drawImage(shown, 0, 0);
    const blob = await new Promise<Blob | null>((resolve) => canvas.toBlob(resolve, 'image/jpeg', 0.92));
    return blob && new File([blob], 'picture.jpg', { type: 'image/jpeg' });
  };
  return { video, state, shoot };
}

/** Sends a picture up and says at the bench how far it is; `part` is null while nothing is under way. */
function useSending(id: string, onDone: () => void) {
  const [part, setPart] = useState<number | null>(null);
  const [problem, setProblem] = useState('');
  const [unsent, setUnsent] = useState<File | null>(null);
  const send = async (file: File | null | undefined) => {
    if (!file) return;
    setUnsent(file);
    setProblem('');
    setPart(0);
    let lastTold = 0;
    try {
      const onShare = (share: number) => {
        const now = Math.round(100 * share);
        setPart(now);
        // A quarter at a time: the bench sees that it moves.
        if (now - lastTold < 25) return;
        lastTold = now;
        void moveTake(id, { state: 'sending', part: now }).catch(() => undefined);
      };
      const result = await sendPhoto(file, onShare, new AbortController().signal);
      await moveTake(id, { state: 'done', part: 100, result });
      onDone();
    } catch (error) {
      setProblem(`${TAKE.wrong} ${(error as Error).message}`);
      setPart(null);
    }
  };
  return { part, problem, send, again: unsent && problem !== '' ? () => void send(unsent) : null };
}

/** A picture by the phone's camera, seen here before it is taken. */
export function TakePicture({ take: { id }, onDone }: { take: Take; onDone: () => void }) {
  const { video, state, shoot } = useCamera();
  const input = useRef<HTMLInputElement>(null);
  const { part, problem, send, again } = useSending(id, onDone);
  useEffect(() => {
    if (state === 'open') void moveTake(id, { state: 'ready' }).catch(() => undefined);
  }, [state, id]);
  return (
    <>
      {state !== 'none' && <video ref={video} className="take-view" muted playsInline />}
      {state === 'none' && <p>{TAKE.noCamera}</p>}
      {problem && (
        <p className="field-echo is-wrong" role="alert">
          {problem}
        </p>
      )}
      {part !== null && <p role="status">{TAKE.state('sending', part)}</p>}
      {again && (
        <PlainButton primary className="take-main" onClick={again}>
          {TAKE.sendAgain}
        </PlainButton>
      )}
      <input
        ref={input}
        type="file"
        hidden
        accept={PHOTO_TYPES.join(',')}
        capture="environment"
        aria-label={TAKE.choose}
        onChange={({ target }) => void send(target.files?.[0])}
      />
      {state === 'open' && (
        <PlainButton
          primary={!again}
          className={again ? '' : 'take-main'}
          disabled={part !== null}
          onClick={() => void shoot().then(send)}
        >
          {TAKE.shutter}
        </PlainButton>
      )}
      <PlainButton
        primary={state === 'none'}
        className={state === 'none' ? 'take-main' : ''}
        disabled={part !== null}
        onClick={() => input.current?.click()}
      >
        {TAKE.choose}
      </PlainButton>
    </>
  );
}
