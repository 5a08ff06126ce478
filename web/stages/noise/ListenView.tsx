import { fixed, grouped } from '@emery/core/quantity';
import { AudioOutlined, DeleteOutlined } from '@ant-design/icons';
import { Button, Progress, Segmented } from 'antd';
import { useRef, useState } from 'react';
import { FindingItem } from '../../bench/FindingItem';
import { microphone } from '../../sound/microphone';
import { soundOfFile } from '../../sound/sound-file';
import { edit, useBench } from '../../state/bench';
import { useStore } from '../../state/store';
import { useCoreRun } from '../../state/use-core-sum';
import { Choice } from '../../ui/Choice';
import { CountField } from '../../ui/CountField';
import { FigureField } from '../../ui/FigureField';
import { SoundDrop } from '../../ui/SoundDrop';
import { StoppedSum } from '../../ui/StoppedSum';
import { useTyped } from '../../ui/typed-text';
import { WithPhone } from '../../take/WithPhone';
import { TAKEN } from '../../together/words';
import { clickSound, play, playing, stopPlaying } from '../../sound/player';
import { type SoundInHand, useNoise } from './NoiseProvider';
import { useDiagnosis, useEngineRpm, useListening, useRates } from './sums';
import { removeItem, SPEED_FROM, type SpeedFrom } from '@emery/core/drive';
import { hundredth, tenth } from '@emery/core/numeric';
import {
  changeNoise,
  chanceFigure,
  DEFAULT_CYLINDERS,
  heardAsClue,
  keepClip,
  KIND_WORDS,
  lessonWords,
  listenFindings,
  matchWords,
  noiseWords,
  simulatedBay,
  SPEED_FROM_WORDS,
  SPEED_DOUBT,
  speedFromOf,
} from '@emery/core/noise';
import { readWav, smallWav, type Sound, wavOfText } from '@emery/core/sound';

type Source = 'microphone' | 'file' | 'simulated';
const SOURCES: { value: Source; label: string }[] = [
  { value: 'microphone', label: 'Microphone' },
  { value: 'file', label: 'Sound file' },
  { value: 'simulated', label: 'Simulated' },
];
/** The last of what is heard live that is listened to, s. */
const LIVE_S = 10;

/** How well a speed is known by how it was read, of 1,000 rev/min. */
const SPEED_READ = SPEED_FROM.map((value) => ({
  value,
  label: `${SPEED_FROM_WORDS[value]}, ± ${fixed(100 * SPEED_DOUBT[value], 1)} %`,
}));

type About = Pick<SoundInHand, 'name' | 'simulated' | 'hidden'>;

/** Listening: a microphone, a sound file, or an engine bay that is simulated; then whose the noise is. */
export function ListenView() {
  const { dispatch } = useBench('dispatch');
  const { drive, diagnosis } = useDiagnosis();
  const { setInHand, setSuspect } = useNoise();
  const { rpm, written, idle } = useEngineRpm();
  const [from, setFrom] = useTyped<Source>('source', 'microphone');
  const [problem, setProblem] = useState<string | null>(null);
  const [listening, setListening] = useState(false);
  const about = useRef<About>({ name: '', simulated: false, hidden: null });
  const stop = useRef<AbortController | null>(null);
  const busy = useRef(false);
  const { run, progress, stopped, cancel } = useCoreRun('noise', (output) => {
    busy.current = false;
    if (output.ok) {
      setSuspect(null);
      setInHand({ ...output, ...about.current });
    } else setProblem(`That file ${output.message}.`);
  });
  const hear = (source: Sound | Uint8Array, what: About) => {
    setProblem(null);
    about.current = what;
    run({ source });
  };
  const listen = async () => {
    setProblem(null);
    setInHand(null);
    stop.current = new AbortController();
    setListening(true);
    const about = { name: 'Microphone', simulated: false, hidden: null };
    busy.current = false;
    // A slow device looks again once it is through with the last look.
    const onSound = (sound: Sound) => {
      if (busy.current) return;
      busy.current = true;
      hear(latest(sound), about);
    };
    const source = microphone({ longestS: 60, onSound });
    try {
      hear(latest(await source.listen(stop.current.signal)), about);
    } catch (error) {
      setProblem((error as Error).message);
    } finally {
      setListening(false);
    }
  };
  const readFile = async (file: File) => {
    setInHand(null);
    setProblem(null);
    const about = { name: file.name, simulated: false, hidden: null };
    try {
      hear(await soundOfFile(file, 'the noise'), about);
    } catch (error) {
      setProblem((error as Error).message);
    }
  };
  const simulate = () => {
    const { hidden, sound } = simulatedBay(drive, rpm, Math.ceil(1e6 * Math.random()));
    const kind = hidden?.kind === 'none' ? 'nothing' : `a ${hidden?.kind}`;
    const what = hidden ? `${kind} of ${lessonWords(drive, hidden)}` : 'no noise';
    hear(sound, { name: 'Simulated engine bay', simulated: true, hidden: what });
  };
  return (
    <section className="noise-listen" aria-label="Listen">
      <HeardPanel live={listening} />
      <div className="fields">
        <FigureField
          label="Engine speed"
          value={rpm}
          unit="rev/min"
          min={100}
          max={30_000}
          onCommit={(value) => dispatch(edit((d) => changeNoise(d, { rpm: value })))}
        />
        <Choice<SpeedFrom>
          label="Read from (± a default)"
          value={speedFromOf(drive)}
          options={SPEED_READ}
          onChange={(rpmFrom) => dispatch(edit((d) => changeNoise(d, { rpmFrom })))}
        />
        <CountField
          label="Cylinders"
          value={drive.noise?.cylinders}
          max={24}
          optional
          hint={drive.noise?.cylinders === undefined ? `${DEFAULT_CYLINDERS} (a default)` : ''}
          onCommit={(value) => dispatch(edit((d) => changeNoise(d, { cylinders: value })))}
        />
      </div>
      {!written && <p className="quiet">{Math.round(idle)} rev/min is its idle. Enter the tachometer reading.</p>}
      <Segmented<Source> block value={from} options={SOURCES} onChange={setFrom} aria-label="Sound source" />
      {from === 'microphone' && (
        <>
          <p className="caution">
            <strong aria-hidden>▲</strong> Nothing loose near a running drive. Hold the microphone outside arm&rsquo;s
            reach of the belt.
          </p>
          {diagnosis.stops.length > 0 ? (
            <p className="field-echo is-wrong" role="alert">
              The engine must not run until the stop above is corrected. An earlier recording can be opened as a file.
            </p>
          ) : (
            <p>Hold the engine steady for ten seconds. Nothing leaves this device unless you save it.</p>
          )}
          {diagnosis.stops.length === 0 && listening && (
            <Button type="primary" onClick={() => stop.current?.abort()}>
              ■ Stop
            </Button>
          )}
          {diagnosis.stops.length === 0 && !listening && (
            <span className="button-row">
              <Button type="primary" icon={<AudioOutlined />} onClick={() => void listen()}>
                Listen
              </Button>
              <WithPhone kind="sound" label={TAKEN.noise} onSound={(file) => void readFile(file)} />
            </span>
          )}
        </>
      )}
      {from === 'file' && (
        <SoundDrop
          text="Drop a recording of the noise here: WAV, or what this browser plays."
          label="Choose a sound file"
          what="Recording of the noise"
          accept="audio/*,.wav"
          onFile={(file) => void readFile(file)}
        />
      )}
      {from === 'simulated' && (
        <div className="simulated" aria-label="Simulated engine bay">
          <p>
            <strong>Simulated.</strong> For practice: an engine bay with one of this drive&rsquo;s noises, or none. It
            measures nothing.
          </p>
          <Button onClick={simulate}>Listen to the simulated bay</Button>
        </div>
      )}
      {progress !== null && !listening && (
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
      <Clips onLook={(bytes, name, simulated) => hear(bytes, { name, simulated, hidden: null })} />
    </section>
  );
}

/** The last seconds of a sound. */
const latest = ({ rate, samples }: Sound): Sound => ({ rate, samples: samples.slice(-Math.round(LIVE_S * rate)) });

/** Result: the kind, how often it repeats, and what comes round as often. */
function HeardPanel({ live }: { live: boolean }) {
  const { drive } = useDiagnosis();
  const { dispatch } = useBench('dispatch');
  const { inHand, setView } = useNoise();
  const { rpm } = useEngineRpm();
  const listening = useListening();
  const now = useStore(playing);
  if (!inHand || !listening) return null;
  const { kind, pitchHz, repeat, matches, engineRpm, otherRpms } = listening;
  const findings = listenFindings(drive, listening, inHand.heard.seconds);
  // What its own orders say beside what was told; or, where they say another, each speed that would sound so.
  const off = engineRpm && Math.abs(engineRpm.rpm / rpm - 1) > 0.01 ? [engineRpm] : otherRpms;
  const stamp = { at: new Date().toISOString(), ...(inHand.simulated && { simulated: true }) };
  const useIt = () => {
    dispatch(edit((d) => heardAsClue(d, listening, stamp)));
    setView('causes');
  };
  const keep = () =>
    dispatch(
      edit((d) =>
        keepClip(d, {
          kind,
          rpm: Math.round(rpm),
          ...(pitchHz !== null && { pitchHz: tenth(pitchHz) }),
          ...(repeat && { repeatHz: hundredth(repeat.hz), plusMinusHz: Math.max(0.01, hundredth(repeat.plusMinusHz)) }),
          seconds: tenth(inHand.heard.seconds),
          name: inHand.name.slice(0, 120),
          wav: smallWav(inHand.sound),
          ...stamp,
        }),
      ),
    );
  return (
    <section aria-label="Result" data-testid="heard-noise" data-kind={kind} data-part={matches[0]?.id ?? ''}>
      <div className="label">
        {live ? 'So far' : 'Result'}
        {inHand.simulated ? ', simulated' : ''}
      </div>
      <div className="answer-figure is-second">
        {KIND_WORDS[kind].name}
        {repeat && kind !== 'whine' && <span className="answer-other">{fixed(repeat.hz, 2)} Hz</span>}
        {kind === 'whine' && pitchHz !== null && <span className="answer-other">{Math.round(pitchHz)} Hz</span>}
      </div>
      <p className="answer-note">
        {KIND_WORDS[kind].what}
        {pitchHz !== null &&
          kind !== 'whine' &&
          `, ${kind === 'rumble' ? 'loudest ' : ''}at about ${fixed(pitchHz / 1000, 1)} kHz`}
        {repeat && `; ± ${fixed(Math.max(0.001, repeat.plusMinusHz), 3)} Hz, one standard deviation`}.
      </p>
      {matches.length > 0 && (
        <ol className="noise-matches" aria-label="What repeats as often">
          {matches.slice(0, 4).map((match) => {
            const { name, how } = matchWords(drive, match);
            const clicks = `click ${match.what} ${match.id}`;
            return (
              <li key={`${match.what} ${match.id}`}>
                <span className="noise-match">
                  <strong>{name}</strong>
                  {how}
                  {match.what !== 'none' && match.what !== 'bearing' && (
                    <span className="quiet"> {fixed(match.hz, 2)} Hz</span>
                  )}
                </span>
                <span className="noise-chance">{chanceFigure(match.probability)}</span>
                {match.what !== 'none' && match.hz * match.harmonic < 60 && (
                  <Button
                    aria-pressed={now === clicks}
                    onClick={() =>
                      now === clicks ? stopPlaying() : play(clicks, clickSound(match.hz * match.harmonic), true)
                    }
                  >
                    {now === clicks ? '■ Stop' : '▶ Click'}
                  </Button>
                )}
              </li>
            );
          })}
        </ol>
      )}
      {off.length > 0 && (
        <div className="button-row is-after">
          <span className="quiet">
            {off.length > 1 ? 'The sound fits one of these engine speeds.' : 'The sound fits this engine speed.'}
          </span>
          {off.map((clip) => {
            const speed = Math.round(clip.rpm);
            return (
              <Button key={speed} onClick={() => dispatch(edit((d) => changeNoise(d, { rpm: speed })))}>
                Take {grouped(speed)} ± {Math.max(1, Math.round(clip.plusMinus))} rev/min
              </Button>
            );
          })}
        </div>
      )}
      {findings.length > 0 && (
        <ul className="findings is-after" aria-label="About this sound">
          {findings.map((finding) => (
            <FindingItem key={finding.code} severity={finding.severity} words={noiseWords(drive, finding)} />
          ))}
        </ul>
      )}
      {inHand.hidden !== null && !live && <p className="quiet">The simulated bay played {inHand.hidden}.</p>}
      {!live && (
        <div className="button-row is-after">
          {kind !== 'none' && (
            <Button type="primary" onClick={useIt}>
              Use as evidence
            </Button>
          )}
          <Button
            onClick={() => (now === 'heard' ? stopPlaying() : play('heard', inHand.sound))}
            aria-pressed={now === 'heard'}
          >
            {now === 'heard' ? '■ Stop' : '▶ Play'}
          </Button>
          <Button onClick={keep}>Save it</Button>
        </div>
      )}
    </section>
  );
}

/** The sounds that were kept. */
function Clips({ onLook }: { onLook: (bytes: Uint8Array, name: string, simulated: boolean) => void }) {
  const { drive, dispatch } = useBench('drive', 'dispatch');
  const now = useStore(playing);
  const rates = useRates();
  const clips = drive.noise?.clips ?? [];
  if (clips.length === 0 || rates.length === 0) return null;
  return (
    <section aria-label="Saved sounds">
      <h2>Saved</h2>
      <ul className="at-hand">
        {clips.map(({ id, kind, rpm, repeatHz, at, name = '', simulated = false, wav }) => (
          <li key={id}>
            <span>
              {KIND_WORDS[kind].name}
              {repeatHz !== undefined && `, ${fixed(repeatHz, 2)} Hz`}{' '}
              <span className="quiet">
                at {rpm} rev/min{at && `, ${at.slice(0, 10)}`}
                {simulated && ', simulated'}
              </span>
            </span>
            {wav !== undefined && (
              <>
                <Button
                  aria-label={`${now === id ? 'Stop' : 'Play'} the ${kind} at ${rpm} rev/min`}
                  onClick={() => {
                    const reading = readWav(wavOfText(wav));
                    if (now === id) stopPlaying();
                    else if (reading.ok) play(id, reading.sound);
                  }}
                >
                  {now === id ? '■' : '▶'}
                </Button>
                <Button onClick={() => onLook(wavOfText(wav), name, simulated)}>Show</Button>
              </>
            )}
            <Button
              icon={<DeleteOutlined />}
              aria-label={`Delete the ${kind} at ${rpm} rev/min`}
              onClick={() => dispatch(edit((d) => removeItem(d, 'noise.clips', id)))}
            />
          </li>
        ))}
      </ul>
    </section>
  );
}
