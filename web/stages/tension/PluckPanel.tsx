import { fixed } from '@emery/core/quantity';
import { AudioOutlined } from '@ant-design/icons';
import { Button, Progress, Segmented } from 'antd';
import { useRef, useState } from 'react';
import { edit, useBench } from '../../state/bench';
import { SoundDrop } from '../../ui/SoundDrop';
import { useCoreRun } from '../../state/use-core-sum';
import { microphone, type SoundSource } from '../../sound/microphone';
import { soundOfFile } from '../../sound/sound-file';
import { StoppedSum } from '../../ui/StoppedSum';
import { useTyped } from '../../ui/typed-text';
import { WithPhone } from '../../take/WithPhone';
import { TAKEN } from '../../together/words';
import type { CoreOutput } from '../tasks';
import { SoundDrawing } from './SoundDrawing';
import { simulatedSpan } from './sound-source';
import { useTensionSums } from './sums';
import { changeBelt, freeIdIn, put } from '@emery/core/drive';
import { hundredth } from '@emery/core/numeric';
import type { Sound } from '@emery/core/sound';
import { massOf } from '@emery/core/loads';
import { forceFigure, meaningOf, NO_PLUCK_WORDS, spanFigures } from '@emery/core/tension';

type Source = 'microphone' | 'file' | 'simulated';
type Heard = CoreOutput<'pluck'>;

const SOURCES: { value: Source; label: string }[] = [
  { value: 'microphone', label: 'Microphone' },
  { value: 'file', label: 'Sound file' },
  { value: 'simulated', label: 'Simulated' },
];

/** A plucked span by ear: listened to, from a file, or a stand-in with a hidden tension. */
export function PluckPanel({ index }: { index: number }) {
  const { drive, belt } = useTensionSums();
  const { unit, dispatch } = useBench('unit', 'dispatch');
  const { standing, source: own } = belt!;
  const [from, setFrom] = useTyped<Source>('sound', 'microphone');
  const [heard, setHeard] = useState<Heard | null>(null);
  const [simulated, setSimulated] = useState(false);
  const [problem, setProblem] = useState<string | null>(null);
  const [listening, setListening] = useState(false);
  const [hidden, setHidden] = useState<number | null>(null);
  const stop = useRef<AbortController | null>(null);
  const { run, progress, stopped, cancel } = useCoreRun('pluck', (output) => {
    setHeard(output);
    if (!output.ok) setProblem(`That file ${output.message}.`);
  });
  const span = spanFigures(standing, index);
  const ask = { lengthMm: span.lengthMm, kgPerMetre: span.kgPerMetre, expectN: Math.max(60, standing.tensionN) };
  const hear = (sound: Sound | Uint8Array, standIn: boolean) => {
    setProblem(null);
    setHeard(null);
    setSimulated(standIn);
    run({ source: sound, ask });
  };
  const listen = async (to: SoundSource) => {
    setProblem(null);
    stop.current = new AbortController();
    setListening(!to.simulated);
    try {
      hear(await to.listen(stop.current.signal), to.simulated);
    } catch (error) {
      setProblem((error as Error).message);
    } finally {
      setListening(false);
    }
  };
  const readFile = async (file: File) => {
    setProblem(null);
    try {
      hear(await soundOfFile(file, 'the plucks'), false);
    } catch (error) {
      setProblem((error as Error).message);
    }
  };
  const found = heard?.ok && heard.heard.tensionN !== null ? heard.heard : null;
  const reading = found && {
    way: 'pluck' as const,
    span: { from: standing.spans[index]!.from, to: standing.spans[index]!.to },
    hz: hundredth(found.frequencyHz!),
    plusMinus: Math.max(0.01, hundredth(found.plusMinusHz!)),
  };
  const meaning = reading && meaningOf(drive, standing, { id: 'heard', ...reading });
  const doubt = meaning && typeof meaning !== 'string' ? Math.hypot(meaning.scatterN, meaning.sharedN) : 0;
  const keep = () =>
    dispatch(
      edit((d) => {
        const kept = d.belts.find(({ id }) => id === own.id)!.tensionReadings;
        return changeBelt(d, own.id, {
          tensionReadings: put(kept, {
            id: freeIdIn('tension', kept),
            ...reading!,
            when: 'worn',
            at: new Date().toISOString(),
            ...(simulated && { simulated }),
          }),
        });
      }),
    );
  return (
    <section className="pluck" aria-label="Pluck by ear">
      <Segmented<Source> block value={from} options={SOURCES} onChange={setFrom} aria-label="Sound source" />
      {from === 'microphone' && (
        <>
          <p>
            Engine off. Hold the microphone a hand’s width from mid-span and pluck it three times, once a second. The
            browser asks for permission to use the microphone.
          </p>
          {listening ? (
            <Button type="primary" onClick={() => stop.current?.abort()}>
              ■ Stop and calculate
            </Button>
          ) : (
            <span className="button-row">
              <Button type="primary" icon={<AudioOutlined />} onClick={() => void listen(microphone())}>
                Listen
              </Button>
              <WithPhone kind="sound" label={TAKEN.pluck} onSound={(file) => void readFile(file)} />
            </span>
          )}
        </>
      )}
      {from === 'file' && (
        <SoundDrop
          text="Drop a recording of the plucks here: WAV, or what this browser plays."
          label="Choose a sound file"
          what="Recording of the plucks"
          accept="audio/*,.wav"
          onFile={(file) => void readFile(file)}
        />
      )}
      {from === 'simulated' && (
        <div className="simulated" aria-label="Simulated span">
          <p>
            <strong>Simulated.</strong> It measures nothing. For practice: a span as long as this one, at a hidden
            tension.
          </p>
          <Button
            onClick={() => {
              const tensionN = Math.round(150 + 700 * Math.random());
              setHidden(tensionN);
              void listen(simulatedSpan(span, tensionN, Math.ceil(1e6 * Math.random())));
            }}
          >
            Pluck the simulated span
          </Button>
        </div>
      )}
      {progress !== null && (
        <div className="button-row" role="status">
          <Progress percent={Math.round(100 * progress)} aria-label="Share of the sound listened to" />
          <Button onClick={cancel}>Cancel</Button>
        </div>
      )}
      <StoppedSum stopped={stopped} />
      {problem && (
        <p className="field-echo is-wrong" role="alert">
          {problem}
        </p>
      )}
      {heard?.ok && (
        <>
          <SoundDrawing picture={heard.picture} plucks={heard.heard.plucks} hz={heard.heard.frequencyHz} />
          {heard.heard.why !== null && (
            <p className="finding is-watch" role="alert">
              <strong>No note.</strong> {NO_PLUCK_WORDS[heard.heard.why]}
            </p>
          )}
        </>
      )}
      {found && (
        <div data-testid="heard" data-hz={found.frequencyHz!} data-tension={found.tensionN!}>
          <div className="label">
            {found.plucks.length === 1 ? '1 pluck' : `${found.plucks.length} plucks`}
            {simulated && ', simulated'}
          </div>
          <div className="answer-figure is-second">
            {forceFigure(found.tensionN!, unit)}
            <span className="answer-other">{fixed(found.frequencyHz!, 1)} Hz</span>
          </div>
          <p>
            ± {Math.round(doubt)} N, nearly all of it from the mass of a metre (
            {massOf(own).weighed ? 'weighed' : 'a default'}). {octaveWords(found)}
            {simulated && hidden !== null && ` The simulated span had ${hidden} N.`}
          </p>
          <Button type="primary" onClick={keep}>
            Record pluck
          </Button>
        </div>
      )}
    </section>
  );
}

function octaveWords({
  confidence,
  others,
}: {
  confidence: number;
  others: { hz: number; tensionN: number }[];
}): string {
  const other = others[0];
  if (confidence > 0.9 || !other) return 'It is the fundamental note of the span.';
  return `Most likely the fundamental note (${Math.round(100 * confidence)} %); at ${other.hz.toFixed(0)} Hz it would be ${Math.round(other.tensionN)} N.`;
}
