import { Button } from 'antd';
import { edit, useBench } from '../../state/bench';
import {
  changeFinding,
  CHECK_WORDS,
  foundNow,
  GLANCE,
  type InspectItem,
  nothingElseSeen,
  putFinding,
  takeBackFinding,
} from '@emery/core/inspect';
import { QuantityField } from '../../ui/QuantityField';
import { HungPicture } from './HungPicture';
import { useInspect } from './InspectProvider';
import { useLook } from './sums';
import { type Check, INSPECT_CHECK_NAMES } from '@emery/core/drive';

/** What is seen on a belt at one glance: a tap on what is there, and one for nothing else. */
export function GlanceCard({ part }: { part: InspectItem }) {
  const { drive, unit, dispatch } = useBench('drive', 'unit', 'dispatch');
  const { began, placing, setPlacing } = useInspect();
  const look = useLook();
  const found = new Map(GLANCE.map((check) => [check, foundNow(drive, part, check, { at: began })]));
  const seen = GLANCE.filter((check) => found.get(check)?.outcome === 'yes');
  const done = GLANCE.every((check) => found.get(check));
  const tap = (check: Check) =>
    dispatch(
      edit((d) =>
        found.get(check as (typeof GLANCE)[number])?.outcome === 'yes'
          ? takeBackFinding(d, part, check, { at: began })
          : putFinding(d, part, { check, outcome: 'yes' }, look()),
      ),
    );
  const takeAllBack = () =>
    dispatch(edit((d) => GLANCE.reduce((now, check) => takeBackFinding(now, part, check, { at: began }), d)));
  return (
    <div className="test-card" role="group" aria-label="Other damage">
      <details className="test-how">
        <summary>
          <span className="test-ask">Anything else visible on it?</span> <span className="test-how-word">How</span>
        </summary>
        <dl className="glance-how">
          {GLANCE.map((check) => (
            <div key={check}>
              <dt>{INSPECT_CHECK_NAMES[check]}</dt>
              <dd>{CHECK_WORDS[check].how}</dd>
            </div>
          ))}
        </dl>
      </details>
      <div className="button-row">
        {GLANCE.map((check) => {
          const said = found.get(check)?.outcome === 'yes';
          return (
            <Button key={check} aria-pressed={said} className={said ? 'is-said' : ''} onClick={() => tap(check)}>
              {said && '✓ '}
              {INSPECT_CHECK_NAMES[check]}
            </Button>
          );
        })}
        <Button
          aria-pressed={done}
          className={done ? 'is-said' : ''}
          onClick={() => (done ? takeAllBack() : dispatch(edit((d) => nothingElseSeen(d, part, look()))))}
        >
          {done && '✓ '}
          {seen.length > 0 ? 'Nothing else' : 'None of these'}
        </Button>
      </div>
      {seen.map((check) => {
        const finding = found.get(check)!;
        const count = finding.places?.length ?? 0;
        return (
          <div key={check} className="glance-seen">
            <span>
              {INSPECT_CHECK_NAMES[check]}
              {count > 0 && `, ${count} ${count === 1 ? 'place' : 'places'}`}
            </span>
            <Button
              aria-pressed={placing === check}
              className={placing === check ? 'is-said' : ''}
              onClick={() => {
                setPlacing(placing === check ? null : check);
                // On a tablet the strip may have been scrolled away.
                document.querySelector('.unrolled')?.scrollIntoView({ block: 'nearest' });
              }}
            >
              {placing === check ? 'Done marking' : 'Mark where'}
            </Button>
            <HungPicture finding={finding} />
            {placing === check && (
              <QuantityField
                label="Or enter it, from the chalk mark"
                mm={null}
                unit={unit}
                onClear={() => undefined}
                onCommit={(mm) =>
                  dispatch(edit((d) => changeFinding(d, finding.id, { places: [...(finding.places ?? []), mm] })))
                }
              />
            )}
          </div>
        );
      })}
      {placing && (
        <p className="quiet" role="status">
          Chalk a mark across the belt. Then tap the unrolled belt below the drawing, where each place is: the left end
          is the chalk mark, and the belt travels to the right.
        </p>
      )}
    </div>
  );
}
