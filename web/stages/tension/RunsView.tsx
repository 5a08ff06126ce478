import { fixed } from '@emery/core/quantity';
import { Button } from 'antd';
import { useMemo } from 'react';
import { useBench, useSelected } from '../../state/bench';
import type { Mark } from '../../state/mark';
import { MarkedRow } from '../../bench/MarkedRow';
import { FindingItem } from '../../bench/FindingItem';
import { useGoToStage } from '../../bench/use-go-to-stage';
import { useTensionSums } from './sums';
import { pulleyLabel } from '@emery/core/drive';
import { alignmentOf, worseOf, worstFirst } from '@emery/core/planes';
import { limitOrDefault } from '@emery/core/accessory';
import { lifeRatio, targetTension, runDrive, SAFE_MARGIN, stateWords, windowOf, worstOf } from '@emery/core/loads';
import {
  forceFigure,
  LEAST_TEETH,
  marginFigure,
  type Remedies,
  remediesFor,
  runningFindings,
  tensionWords,
  toothLoads,
  WRAP_STEP_DEG,
} from '@emery/core/tension';

/** The belt as it runs: what slips first, every pulley and span, and what each remedy is worth. */
export function RunsView() {
  const { drive, tension, run, running, belt } = useTensionSums();
  const { standing, run: own } = belt!;
  const worst = worstOf(own);
  const findings = runningFindings(tension, run, standing.belt.id);
  return (
    <>
      <div data-testid="worst-margin" data-margin={worst?.margin ?? ''}>
        <div className="label">
          {worst ? `${pulleyLabel(drive, worst.pulley)} slips first, at ${stateWords(running)}` : 'No pulley can slip'}
        </div>
        {worst && (
          <div className="answer-figure is-second">
            {marginFigure(worst.margin)}
            <span className={`answer-other is-${marginState(worst.margin)}`}>
              {MARGIN_WORDS[marginState(worst.margin)]}
            </span>
          </div>
        )}
      </div>
      {findings.length > 0 && (
        <ul className="findings" aria-label="Findings while running">
          {findings.map((finding) => (
            <FindingItem
              key={`${finding.code} ${finding.pulley}`}
              severity={finding.severity}
              words={tensionWords(drive, finding)}
            />
          ))}
        </ul>
      )}
      <OutOfLine />
      <RemedyPanel fallback={worst?.pulley ?? null} />
      <Teeth />
      <PulleyTable />
      <SpanTable />
    </>
  );
}

/** Runs that were read and are not good: what is worked out here takes every run as straight. */
function OutOfLine() {
  const { drive, belt } = useTensionSums();
  const goTo = useGoToStage();
  const { id } = belt!.source;
  const worst = useMemo(
    () => worstFirst(alignmentOf(drive, id)?.runs ?? []).find(({ read, verdict }) => read && verdict !== 'good'),
    [drive, id],
  );
  if (!worst) return null;
  return (
    <p className="finding is-watch">
      <strong>
        {pulleyLabel(drive, worst.from)} to {pulleyLabel(drive, worst.to)} runs {fixed(worseOf(worst), 2)}° off.
      </strong>{' '}
      Tension does not correct that: a misaligned belt wears and squeals at any tension.
      <span className="button-row is-after">
        <Button onClick={() => goTo('align')}>See it under Align</Button>
      </span>
    </p>
  );
}

/** What wrap, tension and surface are worth at the pulley in hand, or the one that goes first. */
function RemedyPanel({ fallback }: { fallback: string | null }) {
  const { drive, tension, running, belt } = useTensionSums();
  const { unit } = useBench('unit');
  const selected = useSelected();
  const on = belt!.standing.contacts;
  const held = selected?.kind === 'pulley' ? on.find(({ station }) => station === selected.station)?.pulley : undefined;
  const pulley = held ?? fallback;
  const remedies = useMemo(
    () => (pulley === null ? null : remediesFor(tension, belt!.source.id, pulley, [running])),
    [tension, belt, pulley, running],
  );
  if (!remedies || pulley === null) return null;
  const { tensionN } = belt!.standing;
  return (
    <section className="remedies" aria-label="What helps">
      <h2>What helps {pulleyLabel(drive, pulley)}</h2>
      <ul>
        {remedyLines(remedies, tensionN, (newtons) => forceFigure(newtons, unit)).map((line) => (
          <li key={line}>{line}</li>
        ))}
      </ul>
    </section>
  );
}

function remedyLines(remedies: Remedies, tensionN: number, force: (newtons: number) => string): string[] {
  const { needsN, wrapDeg, wrapWorthN, wrapWantedDeg, dryNeedsN, drivenSideNeedsN } = remedies;
  const lines: string[] = [];
  if (needsN === null) lines.push('No tension is enough: it needs more wrap or more grip.');
  else if (needsN > tensionN)
    lines.push(
      `Tension: ${force(needsN - tensionN)} more static tension, ${force(needsN)} in total, gives 25 % slip margin.`,
    );
  else if (needsN > 0) lines.push(`Tension: it has 25 % slip margin down to ${force(needsN)} static tension.`);
  else lines.push('Tension: it grips at any tension that the other pulleys need.');
  if (wrapWorthN !== null && wrapWorthN >= 0.5)
    lines.push(
      `Wrap: ${WRAP_STEP_DEG}° more than its ${Math.round(wrapDeg)}° replaces ${force(wrapWorthN)} of tension.`,
    );
  if (wrapWantedDeg !== null) lines.push(`With ${Math.ceil(wrapWantedDeg)}° of wrap the present tension is enough.`);
  if (dryNeedsN !== null && needsN !== null) lines.push(`Dry: it would need ${force(needsN - dryNeedsN)} less.`);
  if (drivenSideNeedsN !== null && needsN !== null && needsN > 0)
    lines.push(`Surface: on the ribs in place of the back it would need ${force(Math.max(0, drivenSideNeedsN))}.`);
  return lines;
}

/** Of a toothed belt: what its teeth carry, and what its sounds mean. */
function Teeth() {
  const { drive, belt } = useTensionSums();
  const loads = toothLoads(belt!.standing, belt!.run);
  if (loads.length === 0) return null;
  return (
    <section aria-label="Teeth">
      <table className="ledger-table">
        <thead>
          <tr>
            <th>Toothed pulley</th>
            <th className="figure">teeth in mesh</th>
            <th className="figure">N a tooth</th>
          </tr>
        </thead>
        <tbody>
          {loads.map(({ pulley, teeth, perToothN }) => (
            <tr key={pulley}>
              <td>{pulleyLabel(drive, pulley)}</td>
              <td className="figure">
                {teeth < LEAST_TEETH && <span className="flag is-watch">▲ few </span>}
                {fixed(teeth, 1)}
              </td>
              <td className="figure">{Math.round(perToothN)}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="quiet">
        A toothed belt needs little tension. A whine that rises with engine speed means too tight; jumping teeth mean
        too loose, or too few teeth in mesh. The usual check is a quarter turn of its longest span, under Check.
      </p>
    </section>
  );
}

const HEADS = ['slip margin', 'torque, N·m', 'hub load, N', 'bearing life vs target tension'] as const;

function PulleyTable() {
  const { drive, tension, run, running, belt, states } = useTensionSums();
  const { run: own, source } = belt!;
  // Life against the aim of the window: there each shaft carries what it was meant to.
  const aimed = useMemo(() => {
    const window = windowOf(tension, source.id, states, limitOrDefault);
    const newtons = window && targetTension(window);
    return newtons ? runDrive(tension, running, { [source.id]: newtons }) : null;
  }, [tension, source, states, running]);
  return (
    <table className="ledger-table folds" aria-label="Pulleys">
      <thead>
        <tr>
          <th>Pulley</th>
          {HEADS.map((head) => (
            <th key={head} className={head === HEADS[3] ? 'figure is-narrow' : 'figure'}>
              {head}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {own.pulleys.map(({ contact: { pulley, station }, margin, torqueNm }, k) => {
          const [load, there] = [run.shafts.get(station)!, aimed?.shafts.get(station)];
          const newtons = Math.hypot(load.x, load.y);
          const life = there ? lifeRatio(newtons, Math.hypot(there.x, there.y)) : null;
          const mark: Mark = { kind: 'pulley', station, pulley };
          return (
            <MarkedRow key={`${pulley} ${k}`} mark={mark}>
              <td>
                <button type="button" className="row-button">
                  {pulleyLabel(drive, pulley)}
                </button>
              </td>
              <td className="figure" data-head={HEADS[0]}>
                {margin !== null && margin < SAFE_MARGIN && (
                  <span className={`flag is-${margin < 0 ? 'fault' : 'watch'}`}>{margin < 0 ? '■ slips ' : '▲ '}</span>
                )}
                {margin === null ? '—' : marginFigure(margin)}
              </td>
              <td className="figure" data-head={HEADS[1]}>
                {torqueFigure(torqueNm)}
              </td>
              <td className="figure" data-head={HEADS[2]}>
                {Math.round(newtons)}
              </td>
              <td className="figure" data-head={HEADS[3]}>
                {life === null ? '—' : lifeWords(life)}
              </td>
            </MarkedRow>
          );
        })}
      </tbody>
    </table>
  );
}

function torqueFigure(nm: number): string {
  if (nm === 0) return '—';
  return nm < 0 ? `delivers ${fixed(-nm, 1)}` : fixed(nm, 1);
}

function SpanTable() {
  const { drive, belt } = useTensionSums();
  const { unit } = useBench('unit');
  const { run: own, source } = belt!;
  return (
    <table className="ledger-table" aria-label="Spans">
      <thead>
        <tr>
          <th>Span, as the belt travels</th>
          <th className="figure">tension</th>
        </tr>
      </thead>
      <tbody>
        {own.pulleys.map(({ contact: { leaves }, leavesN }, index) => (
          <MarkedRow key={`${leaves.from} ${index}`} mark={{ kind: 'span', belt: source.id, index }}>
            <td>
              <button type="button" className="row-button">
                {pulleyLabel(drive, leaves.from)} → {pulleyLabel(drive, leaves.to)}
              </button>
            </td>
            <td className="figure">
              {leavesN <= own.centrifugalN && <span className="flag is-fault">■ slack </span>}
              {forceFigure(leavesN, unit)}
            </td>
          </MarkedRow>
        ))}
      </tbody>
    </table>
  );
}

type MarginState = 'slipping' | 'near' | 'holding';
const MARGIN_WORDS: Record<MarginState, string> = {
  slipping: '■ slips',
  near: '▲ little slip margin',
  holding: '● safe slip margin',
};
function marginState(margin: number): MarginState {
  if (margin < 0) return 'slipping';
  return margin < SAFE_MARGIN ? 'near' : 'holding';
}

const lifeWords = (life: number) => (life > 9.5 ? '×10 +' : `×${fixed(life, 1)}`);
