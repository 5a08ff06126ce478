import { useEffect, useEffectEvent, useRef, useState } from 'react';
import { microphone } from '../sound/microphone';
import { PlainButton } from '../ui/PlainButton';
import { TAKE } from '../together/words';
import { moveTake, sendSound } from './takes';
import type { Take } from '@emery/core/api';
import { type Sound, writeWav } from '@emery/core/sound';

/** So long is recorded at most, s. */
const LONGEST_S = 30;

/** Records as soon as it is opened, where the browser lets it; else at a tap. */
function useRecording(id: string, onDone: () => void) {
  const [seconds, setSeconds] = useState<number | null>(null);
  const [part, setPart] = useState<number | null>(null);
  const [problem, setProblem] = useState('');
  const [stop, setStop] = useState<AbortController | null>(null);
  const [unsent, setUnsent] = useState<Sound | null>(null);
  const begun = useRef(false);

  const send = async (sound: Sound) => {
    setProblem('');
    setUnsent(sound);
    setPart(0);
    try {
      await moveTake(id, { state: 'sending', part: 0 });
      await sendSound(id, writeWav(sound), (share) => setPart(Math.round(100 * share)));
      onDone();
    } catch (error) {
      setProblem((error as Error).message);
      setPart(null);
    }
  };
  const record = async () => {
    setProblem('');
    setUnsent(null);
    const over = new AbortController();
    setStop(over);
    const onSound = ({ samples, rate }: Sound) => setSeconds(Math.round(samples.length / rate));
    try {
      setSeconds(0);
      void moveTake(id, { state: 'ready' }).catch(() => undefined);
      await send(await microphone({ longestS: LONGEST_S, onSound }).listen(over.signal));
    } catch {
      setProblem(TAKE.quiet);
    } finally {
      setSeconds(null);
      setStop(null);
    }
  };
  const begin = useEffectEvent(record);
  useEffect(() => {
    if (begun.current) return;
    begun.current = true;
    // Asked for once: a browser that wants a tap first says so, and the button stands there.
    void Promise.resolve().then(begin);
  }, []);
  return { seconds, part, problem, stop, record, again: unsent && (() => void send(unsent)) };
}

/** A recording by the phone's microphone. */
export function TakeSound({ take: { id }, onDone }: { take: Take; onDone: () => void }) {
  const { seconds, part, problem, stop, record, again } = useRecording(id, onDone);
  return (
    <>
      <p className="caution">
        <strong aria-hidden>▲</strong> {TAKE.caution}
      </p>
      {problem && (
        <p className="field-echo is-wrong" role="alert">
          {problem}
        </p>
      )}
      {seconds !== null && part === null && (
        <p className="take-seconds" role="status">
          {TAKE.recording(seconds)}
        </p>
      )}
      {part !== null && <p role="status">{TAKE.state('sending', part)}</p>}
      {part === null && again && !stop && (
        <PlainButton primary className="take-main" onClick={again}>
          {TAKE.sendAgain}
        </PlainButton>
      )}
      {part === null && (
        <PlainButton primary className="take-main" onClick={() => (stop ? stop.abort() : void record())}>
          {stop ? TAKE.stopAndSend : TAKE.record}
        </PlainButton>
      )}
    </>
  );
}
