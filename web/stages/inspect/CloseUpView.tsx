import { fixed } from '@emery/core/quantity';
import { DeleteOutlined } from '@ant-design/icons';
import { Button, Progress } from 'antd';
import { useState } from 'react';
import { sendPhoto } from '../../api/photos';
import { BeltChoice } from '../../bench/BeltChoice';
import { edit, useBench } from '../../state/bench';
import { runCore } from '../../state/run-core';
import { useCoreRun } from '../../state/use-core-sum';
import { PictureButton } from '../../ui/PictureButton';
import { StoppedSum } from '../../ui/StoppedSum';
import { pictureAddress } from '../../views/picture/address';
import { pitchOfBelt, useCloseUpReading } from './close-up';
import { type CloseUpInHand, useInspect } from './InspectProvider';
import { useLook } from './sums';
import type { KeptPicture, RibMarks } from '@emery/core/drive';
import { changeFinding, CHECK_WORDS, findingsOf, limitsOf, putFinding, wornShare } from '@emery/core/inspect';
import { type NoRibReading, type NoRibsFound, RIBS_AS_NEW, type RibsAsked } from '@emery/core/inspect/ribs';
import { hundredth } from '@emery/core/numeric';

const NO_MARKS: RibMarks = { tips: [], valleys: [] };

const NOT_FOUND: Record<NoRibsFound['why'], string> = {
  'no-contrast': 'The belt is hard to see against its background. Lay it on white paper, or mark it by hand.',
  'no-ribs': 'No row of ribs found. Move nearer and square-on, or mark it by hand.',
  'not-ribs': 'The repeating shape is not ribs: a thread, a cog, something else. If it is the ribs, mark them by hand.',
  'too-few-ribs': 'Fewer than three whole ribs in the picture. Take in more of them, or mark them by hand.',
  'too-small': 'The ribs are too small in the picture. Move nearer, or mark them by hand.',
  'too-blurred': 'Too blurred to show the floors of the grooves. Take it again with more light.',
};
const NOT_READ: Record<NoRibReading['why'], string> = {
  'too-few': 'Mark two tips and two floors or more.',
  'not-in-a-row': 'These marks are not in a row of ribs. Remove the wrong one.',
  'too-small': 'The ribs are too small in the picture. Move nearer.',
};

/** The close-up: a picture of the ribs, the marks on it, and the depth they come to. */
export default function CloseUpView() {
  const { drive, belt } = useBench('drive', 'belt');
  const { closeUp } = useInspect();
  const pitch = pitchOfBelt(drive, belt?.id);
  if (closeUp) return <InHand />;
  if (!belt || !pitch)
    return (
      <>
        <BeltChoice />
        <p>A close-up measures ribs. This belt has none: measure its ride below the rim in the walk.</p>
      </>
    );
  return (
    <>
      <BeltChoice />
      <Intake beltId={belt.id} pitch={pitch} />
    </>
  );
}

/** Takes a close-up in, opens one that was kept, or makes one up to learn by. */
function Intake({ beltId, pitch }: { beltId: string; pitch: number }) {
  const { drive } = useBench('drive');
  const { setCloseUp } = useInspect();
  const [making, setMaking] = useState(false);
  const [problem, setProblem] = useState('');
  const open = (picture: KeptPicture, more: Partial<CloseUpInHand> = {}) =>
    setCloseUp({
      picture,
      belt: beltId,
      marks: NO_MARKS,
      row: 'tips',
      profile: null,
      finding: null,
      answerMm: null,
      ...more,
    });
  const kept = findingsOf(drive, { on: 'belt', target: beltId }).filter(
    ({ check, photo }) => check === 'rib-depth' && photo,
  );
  const practise = async () => {
    setMaking(true);
    setProblem('');
    try {
      const depthMm = hundredth(1.8 + 1.1 * Math.random());
      const file = await runCore('madeRibs', practiceOf(depthMm, pitch));
      const sent = await sendPhoto(file, () => undefined, new AbortController().signal);
      open(sent, { answerMm: depthMm });
    } catch (error) {
      setProblem((error as Error).message);
    } finally {
      setMaking(false);
    }
  };
  return (
    <>
      <PictureButton
        label="Take or choose a picture"
        what="Close-up of the ribs"
        primary
        onKept={(picture) => open(picture)}
        around={(button) => (
          <>
            <h2>The ribs from the end</h2>
            <p>
              Lay the cut end, or a thin slice, on white paper with the ribs free of it. Hold the camera square-on, as
              near as it stays sharp. The rib pitch gives the scale.
            </p>
            <div className="button-row is-after">{button}</div>
          </>
        )}
      />
      {kept.length > 0 && (
        <section aria-label="Saved close-ups">
          <h2>Saved</h2>
          <ul className="at-hand">
            {kept.map(({ id, photo, marks, value, at }) => (
              <li key={id}>
                <span>
                  {value} mm <span className="quiet">{at?.slice(0, 10)}</span>
                </span>
                <Button onClick={() => open(photo!, { finding: id, ...(marks && { marks }) })}>
                  <img className="hung-tiny" src={pictureAddress(photo!.hash)} alt="" /> Open
                </Button>
              </li>
            ))}
          </ul>
        </section>
      )}
      <section aria-label="Practice">
        <h2>Practice</h2>
        <p>A simulated picture with a known depth. Mark it, or let Emery find the ribs, then compare.</p>
        <Button loading={making} onClick={() => void practise()}>
          Practise on a simulated picture
        </Button>
        {problem && (
          <p className="field-echo is-wrong" role="alert">
            {problem}
          </p>
        )}
      </section>
    </>
  );
}

/** A practice picture: held by hand, a little blurred, another every time. */
function practiceOf(depthMm: number, pitchMm: number): RibsAsked {
  const any = (spread: number) => spread * (2 * Math.random() - 1);
  const scale = pitchMm / RIBS_AS_NEW.pitchMm;
  return {
    ...RIBS_AS_NEW,
    pitchMm,
    depthMm: depthMm * scale,
    floorMm: (0.4 + 0.5 * Math.max(0, 2.9 - depthMm)) * scale,
    pxPerMm: RIBS_AS_NEW.pxPerMm / scale,
    rollDeg: any(8),
    yawDeg: any(10),
    tiltDeg: any(8),
    blurPx: 1.4 + any(0.6),
    height: 460,
    seed: Math.floor(1e6 * Math.random()),
  };
}

/** The close-up in hand: what its marks come to, and what can be done with it. */
function InHand() {
  const { drive, dispatch } = useBench('drive', 'dispatch');
  const { closeUp, setCloseUp, setView } = useInspect();
  const { picture, belt: beltId, marks, profile, finding, answerMm, row } = closeUp!;
  const look = useLook();
  const reading = useCloseUpReading();
  const belt = drive.belts.find(({ id }) => id === beltId);
  const limits = belt ? limitsOf(drive, 'rib-depth', { belt }) : null;
  const pitchMm = pitchOfBelt(drive, beltId);
  const [missed, setMissed] = useState('');
  const { run, progress, stopped, cancel } = useCoreRun('ribs', (found) => {
    if (found.ok) setCloseUp({ ...closeUp!, marks: found.marks, profile: found.profile });
    else setMissed(NOT_FOUND[found.why]);
  });
  const find = () => {
    setMissed('');
    run({ hash: picture.hash, pitchMm: pitchMm! });
  };
  const keep = () => {
    if (!reading?.ok) return;
    const part = { on: 'belt', target: beltId } as const;
    const { at, sigma } = reading.depthMm;
    const found = { value: hundredth(at), plusMinus: Math.max(0.01, hundredth(sigma)), marks };
    dispatch(
      edit((d) => {
        // One that was opened again is put right: it is no second reading.
        if (finding !== null) return changeFinding(d, finding, found);
        const deep = putFinding(d, part, { check: 'rib-depth', ...found, photo: picture }, look());
        return profile ? putFinding(deep, part, { check: 'profile', outcome: profile }, look()) : deep;
      }),
    );
    setCloseUp(null);
    setView('walk');
  };
  const worn = reading?.ok && limits ? wornShare(reading.depthMm.at, limits) : null;
  return (
    <section className="close-up" aria-label="Close-up">
      {answerMm !== null && <p className="simulated">Simulated, for practice. It is not this belt.</p>}
      {reading?.ok ? (
        <div className="answer" data-testid="rib-depth">
          <div className="label">Depth of the grooves</div>
          <div className="answer-figure is-second">
            {fixed(reading.depthMm.at, 2)} mm
            <span className="answer-other">± {fixed(reading.depthMm.sigma, 2)}</span>
          </div>
          <div className="answer-note">
            {worn !== null &&
              `${Math.round(100 * Math.min(1.5, Math.max(0, worn)))} % worn, of ${limits!.fresh} mm new and ${limits!.replace} mm worn out. `}
            {profile && `Grooves: ${CHECK_WORDS.profile.outcomes![profile]}. `}
            {reading.squareTaken
              ? 'The ± includes a default for squareness.'
              : 'Squareness measured from the rib flanks.'}
          </div>
          {reading.off[row].length > 0 && <div className="answer-note">▲ A mark in red does not fit the others.</div>}
        </div>
      ) : (
        <p role="status">{reading ? NOT_READ[reading.why] : ''}</p>
      )}
      {answerMm !== null && reading?.ok && <PracticeAnswer answerMm={answerMm} readMm={reading.depthMm.at} />}
      {progress !== null && (
        <div role="status">
          <Progress percent={Math.round(100 * progress)} size="small" />
          <Button onClick={cancel}>Stop</Button>
        </div>
      )}
      <StoppedSum stopped={stopped} />
      {missed && (
        <p className="finding is-watch" role="alert">
          {missed}
        </p>
      )}
      <div className="button-row">
        <Button type={reading?.ok ? 'default' : 'primary'} disabled={progress !== null} onClick={find}>
          Find the ribs
        </Button>
        {answerMm === null && (
          <Button type="primary" disabled={!reading?.ok} onClick={keep}>
            {finding !== null ? 'Save the marks' : `Save it${profile ? ', with the shape' : ''}`}
          </Button>
        )}
        <Button
          disabled={marks.tips.length + marks.valleys.length === 0}
          icon={<DeleteOutlined />}
          onClick={() => setCloseUp({ ...closeUp!, marks: NO_MARKS, profile: null })}
        >
          Clear the marks
        </Button>
        <Button onClick={() => setCloseUp(null)}>Back to the drawing</Button>
      </div>
      <p>
        Put a mark on the middle of each rib&rsquo;s tip, then on the middle of each groove&rsquo;s floor. Two of each
        do; more are better.
      </p>
    </section>
  );
}

/** How near a practice reading came, told when it is asked for. */
function PracticeAnswer({ answerMm, readMm }: { answerMm: number; readMm: number }) {
  const [isTold, setTold] = useState(false);
  if (!isTold) return <Button onClick={() => setTold(true)}>Compare</Button>;
  const off = Math.abs(readMm - answerMm);
  return (
    <p role="status" className={`finding is-${off <= 0.1 ? 'note' : 'watch'}`}>
      <strong>Depth {fixed(answerMm, 2)} mm.</strong> Your reading is {fixed(off, 2)} mm off
      {off <= 0.1 ? ', within the ± of a gauge.' : '. Look at the marks under the magnifier again.'}
    </p>
  );
}
