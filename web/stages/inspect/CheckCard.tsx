import { Button } from 'antd';
import { edit, useBench } from '../../state/bench';
import { AskCard } from '../../ui/AskCard';
import { FigureField } from '../../ui/FigureField';
import { QuantityField } from '../../ui/QuantityField';
import { HungPicture } from './HungPicture';
import { useInspect } from './InspectProvider';
import { useLook } from './sums';
import { type Belt, type Check, checkRules, INSPECT_CHECK_NAMES } from '@emery/core/drive';
import {
  CHECK_WORDS,
  checkFigure,
  foundNow,
  foundWords,
  type InspectItem,
  limitsOf,
  limitWords,
  oddFigure,
  putFinding,
  takeBackFinding,
} from '@emery/core/inspect';

/** Lengths that are taped, in the shop's own unit; what wears is read in mm. */
const TAPED: readonly Check[] = ['slot', 'length'];
/** A figure that may lie on either side of zero. */
const SIGNED: readonly Check[] = ['ride', 'track'];

const partOf = ({ on, target }: InspectItem, belt: Belt | undefined) =>
  on === 'pulley' ? { pulley: target } : { belt };

/** One check at one part: its outcomes, or its figure; what was found before; a picture on what is found now. */
export function CheckCard({ part, check }: { part: InspectItem; check: Check }) {
  const { drive, unit, dispatch } = useBench('drive', 'unit', 'dispatch');
  const { began, setView } = useInspect();
  const look = useLook();
  const words = CHECK_WORDS[check];
  const { outcomes, figure } = checkRules(check);
  const now = foundNow(drive, part, check, { at: began });
  const earlier = now ? undefined : part.judged.find(({ code }) => code === check);
  const belt = part.on === 'belt' ? drive.belts.find(({ id }) => id === part.target) : undefined;
  const limits = limitsOf(drive, check, partOf(part, belt));
  const odd = now?.value !== undefined && figure && !outcomes ? oddFigure(check, now.value, limits) : null;
  const put = (found: { outcome?: string; value?: number }) =>
    dispatch(edit((d) => putFinding(d, part, { check, ...found }, look())));
  const takeBack = () => dispatch(edit((d) => takeBackFinding(d, part, check, { at: began })));
  const figureProps = {
    label: `${INSPECT_CHECK_NAMES[check]}${figure?.unit === 'mm' && !TAPED.includes(check) ? ', mm' : ''}`,
    onCommit: (value: number) => put({ value }),
    onClear: takeBack,
  };
  return (
    <AskCard
      label={INSPECT_CHECK_NAMES[check]}
      ask={words.ask}
      how={<p>{words.how}</p>}
      brief
      outcomes={outcomes?.map((outcome) => ({ outcome, label: words.outcomes![outcome]! }))}
      said={now?.outcome}
      onSay={(outcome) => (now?.outcome === outcome ? takeBack() : put({ outcome }))}
    >
      {figure && !outcomes && (
        <div className="check-figure">
          {figure.unit === 'mm' ? (
            <QuantityField
              {...figureProps}
              mm={now?.value ?? null}
              unit={TAPED.includes(check) ? unit : 'mm'}
              signed={SIGNED.includes(check)}
              max={figure.max}
            />
          ) : (
            <FigureField
              {...figureProps}
              unit={figure.unit === 'degrees' ? '°' : 'per rib'}
              value={now?.value ?? null}
              min={figure.min}
              max={figure.max}
            />
          )}
          {check === 'rib-depth' && <Button onClick={() => setView('close-up')}>From a picture</Button>}
        </div>
      )}
      {check === 'stroke' && now?.outcome === 'binds' && (
        <FigureField
          label="Where it binds"
          unit="°"
          value={now.value ?? null}
          min={-720}
          max={720}
          onCommit={(value) => put({ outcome: 'binds', value })}
          onClear={() => put({ outcome: 'binds' })}
        />
      )}
      {odd && (
        <p className="field-echo is-wrong" role="status">
          ▲ {checkFigure(check, now!.value!)}? The possible range is {checkFigure(check, odd.from)} to{' '}
          {checkFigure(check, odd.to)}, so no verdict uses it. Read it again.
        </p>
      )}
      {limits && figure && (
        <p className="quiet">
          {limitWords({ code: check, grade: 'nothing', limits, from: 'inspect' }, unit).replace(/^./, (first) =>
            first.toUpperCase(),
          )}
          .
        </p>
      )}
      {earlier && (
        <p className="quiet">
          Before{earlier.finding?.at ? `, ${earlier.finding.at.slice(0, 10)}` : ''}
          {earlier.from === 'align' ? ', under Align' : ''}: {foundWords(earlier, unit)}.
        </p>
      )}
      {now && <HungPicture finding={now} />}
    </AskCard>
  );
}
