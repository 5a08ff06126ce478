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
import { lifeRatio, aimOf, runDrive, SAFE_MARGIN, stateWords, windowOf, worstOf } from '@emery/core/loads';
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
  const worst = worstOf(standing, own);
  const findings = runningFindings(tension, run, standing.belt.id);
  return (
    <>
      <div data-testid="worst-margin" data-margin={worst?.margin ?? ''}>
        <div className="label">
          {worst
            ? `${pulleyLabel(drive, worst.pulley)} goes first, at ${stateWords(running)}`
            : 'Nothing on it can slip'}
        </div>
        {worst && (
          <div className="answer-figure is-second">
            {marginFigure(worst.margin)}
            <span
              className={`answer-other is-${worst.margin < 0 ? 'slipping' : worst.margin < SAFE_MARGIN ? 'near' : 'holding'}`}
            >
              {worst.margin < 0
                ? '■ slips'
                : worst.margin < SAFE_MARGIN
                  ? '▲ little slip margin'
                  : '● safe slip margin'}
            </span>
          </div>
        )}
      </div>
      {findings.length > 0 && (
        <ul className="findings" aria-label="What is found running">
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
        {pulleyLabel(drive, worst.from)} to {pulleyLabel(drive, worst.to)} runs {worseOf(worst).toFixed(2)}° off.
      </strong>{' '}
      Tension does not cure that, and a belt out of line wears and squeals at any tension.
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
    <section className="remedies" aria-label="What would help">
      <h2>What would help {pulleyLabel(drive, pulley)}</h2>
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
  if (needsN === null) lines.push('No tension is enough: it wants more wrap or more grip.');
  else if (needsN > tensionN)
    lines.push(`Tension: ${force(needsN - tensionN)} more at rest, ${force(needsN)} in all, keeps a quarter in hand.`);
  else if (needsN > 0) lines.push(`Tension: it holds down to ${force(needsN)} at rest with a quarter in hand.`);
  else lines.push('Tension: it holds at any tension that the others need.');
  if (wrapWorthN !== null && wrapWorthN >= 0.5)
    lines.push(`Wrap: ${WRAP_STEP_DEG}° more than its ${Math.round(wrapDeg)}° is worth ${force(wrapWorthN)} of belt.`);
  if (wrapWantedDeg !== null) lines.push(`With ${Math.ceil(wrapWantedDeg)}° of wrap the present tension would do.`);
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
                {teeth.toFixed(1)}
              </td>
              <td className="figure">{Math.round(perToothN)}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="quiet">
        A toothed belt wants little. A whine that climbs with the engine says too tight; a jump says too loose, or too
        few teeth in mesh. The usual check is a quarter turn of its longest span, under Check.
      </p>
    </section>
  );
}

function PulleyTable() {
  const { drive, tension, run, running, belt, states } = useTensionSums();
  const { standing, run: own, source } = belt!;
  // Life against the aim of the window: there each shaft carries what it was meant to.
  const aimed = useMemo(() => {
    const window = windowOf(tension, source.id, states, limitOrDefault);
    const newtons = window && aimOf(window);
    return newtons ? runDrive(tension, running, { [source.id]: newtons }) : null;
  }, [tension, source, states, running]);
  return (
    <table className="ledger-table" aria-label="Pulleys">
      <thead>
        <tr>
          <th>Pulley</th>
          <th className="figure">slip margin</th>
          <th className="figure">takes, N·m</th>
          <th className="figure">hub load, N</th>
          <th className="figure is-narrow">bearing life vs target tension</th>
        </tr>
      </thead>
      <tbody>
        {standing.contacts.map(({ pulley, station }, k) => {
          const [load, there] = [run.shafts.get(station)!, aimed?.shafts.get(station)];
          const newtons = Math.hypot(load.x, load.y);
          const life = there ? lifeRatio(newtons, Math.hypot(there.x, there.y)) : null;
          const margin = own.margin[k]!;
          const mark: Mark = { kind: 'pulley', station, pulley };
          return (
            <MarkedRow key={`${pulley} ${k}`} mark={mark}>
              <td>
                <button type="button" className="row-button">
                  {pulleyLabel(drive, pulley)}
                </button>
              </td>
              <td className="figure">
                {margin !== null && margin < SAFE_MARGIN && (
                  <span className={`flag is-${margin < 0 ? 'fault' : 'watch'}`}>{margin < 0 ? '■ slips ' : '▲ '}</span>
                )}
                {margin === null ? '—' : marginFigure(margin)}
              </td>
              <td className="figure">{torqueFigure(own.torqueNm[k]!)}</td>
              <td className="figure">{Math.round(newtons)}</td>
              <td className="figure">{life === null ? '—' : life > 9.5 ? '×10 +' : `×${life.toFixed(1)}`}</td>
            </MarkedRow>
          );
        })}
      </tbody>
    </table>
  );
}

function torqueFigure(nm: number): string {
  if (nm === 0) return '—';
  return nm < 0 ? `gives ${(-nm).toFixed(1)}` : nm.toFixed(1);
}

function SpanTable() {
  const { drive, belt } = useTensionSums();
  const { unit } = useBench('unit');
  const { standing, run: own, source } = belt!;
  return (
    <table className="ledger-table" aria-label="Spans">
      <thead>
        <tr>
          <th>Span, as the belt travels</th>
          <th className="figure">pull</th>
        </tr>
      </thead>
      <tbody>
        {standing.spans.map(({ from, to }, index) => (
          <MarkedRow key={`${from} ${index}`} mark={{ kind: 'span', belt: source.id, index }}>
            <td>
              <button type="button" className="row-button">
                {pulleyLabel(drive, from)} → {pulleyLabel(drive, to)}
              </button>
            </td>
            <td className="figure">
              {own.tensionN[index]! <= own.centrifugalN && <span className="flag is-fault">■ slack </span>}
              {forceFigure(own.tensionN[index]!, unit)}
            </td>
          </MarkedRow>
        ))}
      </tbody>
    </table>
  );
}
