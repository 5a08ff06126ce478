import { useMemo, useState } from 'react';
import { changesBetween } from '@emery/core/together';
import { Link, useNavigate } from 'react-router';
import { ask } from '../api/client';
import { newSaveId, useSavedDrive } from '../api/shop';
import { useStockedLengths } from '../api/stock';
import { ChooseDrive } from '../shop/ChooseDrive';
import { useCoreSum } from '../state/use-core-sum';
import { PlainButton } from '../ui/PlainButton';
import { useAsked, useText, useUnit } from './asked';
import { PickAsk } from './fields';
import { StringAnswered } from './StringAnswered';
import { lengthCurve } from '@emery/core/adjuster';
import type { DriveOpened } from '@emery/core/api';
import { type Held, type LengthsToAsk, STATE_OF_HELD } from '@emery/core/counter';
import { type Belt, freeIdIn, type Measurement, putMeasurement } from '@emery/core/drive';
import { sectionFor } from '@emery/core/section';
import { measuredLength, secondTo, type SizeAnswer, sizeWords } from '@emery/core/size';

type Measured = Omit<Measurement, 'id'>;

/** A string laid on a drive that the shop has: the very figure that Size gives, with no bend to be told. */
export default function KnownDrive({ measurement, held }: { measurement: Measured | null; held: Held }) {
  const [id, setId] = useText('drive');
  const { put } = useAsked();
  return (
    <div className="known-drive">
      {id === '?' ? (
        <ChooseDrive onChoose={setId} />
      ) : (
        <OnDrive key={id} id={id} measurement={measurement} held={held} />
      )}
      <PlainButton onClick={() => put({ drive: '', belt: '' })}>Without a drive</PlainButton>
    </div>
  );
}

function OnDrive({ id, measurement, held }: { id: string; measurement: Measured | null; held: Held }) {
  const { data, error } = useSavedDrive(id);
  const [wanted, setBelt] = useText('belt');
  if (error) return <p className="field-echo is-wrong">{error.message}</p>;
  if (!data) return <p className="quiet">Reading the drive.</p>;
  const belts = data.document.belts.filter(({ route }) => route.length > 1);
  const belt = belts.find((belt) => belt.id === wanted) ?? belts[0];
  return (
    <>
      <p>
        On <strong>{data.vehicleName}</strong>, <Link to={`/drives/${id}/size`}>{data.name || 'a drive'}</Link>.
      </p>
      {!belt && <p className="finding is-watch">Its belts have no route yet, so Emery cannot place the string.</p>}
      {belts.length > 1 && (
        <PickAsk
          label="Which belt"
          value={belt!.id}
          options={belts.map((belt, k) => ({ value: belt.id, label: `Belt ${k + 1}, ${belt.section}` }))}
          onChange={setBelt}
        />
      )}
      {belt && <OnBelt opened={data} belt={belt} measurement={measurement} held={held} />}
    </>
  );
}

function OnBelt({
  opened,
  belt,
  measurement,
  held,
}: {
  opened: DriveOpened;
  belt: Belt;
  measurement: Measured | null;
  held: Held;
}) {
  const navigate = useNavigate();
  const unit = useUnit();
  const [problem, setProblem] = useState('');
  const { document } = opened;
  const asString: Measurement | null = measurement && {
    ...measurement,
    id: freeIdIn('measured', belt.measurements),
    state: STATE_OF_HELD[held],
  };
  const length = asString && measuredLength(document, belt, lengthCurve(document, belt), asString);
  // Which length to ask for is Size's own answer, with this string among what was measured.
  const stocked = useStockedLengths(belt.section, belt.ribs ?? null);
  const stock = stocked.data?.lengths;
  // It is made anew at every look; what it says is what counts.
  const saying = length ? JSON.stringify(asString) : null;
  const waiting = stocked.isPending && stocked.fetchStatus === 'fetching';
  const asked = useMemo(
    () =>
      saying === null || waiting
        ? null
        : {
            drive: putMeasurement(document, belt.id, JSON.parse(saying) as Measurement),
            belt: belt.id,
            also: [],
            stock: (stock ?? []).map(({ lengthMm }) => lengthMm),
          },
    [document, belt, saying, stock, waiting],
  );
  const { found, progress } = useCoreSum('size', asked);
  const sized = found && found.input === asked ? found.output : null;
  const add = async () => {
    try {
      const after = putMeasurement(document, belt.id, { ...asString!, at: new Date().toISOString() });
      await ask('PATCH', `/drives/${opened.id}`, {
        ...{ revision: opened.revision, saveId: newSaveId() },
        changes: changesBetween(document, after),
      });
      void navigate(`/drives/${opened.id}/size`);
    } catch (error) {
      setProblem(`Not added. ${(error as Error).message}`);
    }
  };
  const section = sectionFor(belt.section, belt.sectionOverrides)!;
  const missing = sized?.findings.find(({ code }) => code === 'no-adjuster');
  return (
    <StringAnswered
      belt={{ section, ribs: belt.ribs ?? null }}
      answer={length}
      lengths={sized && lengthsBySize(sized)}
      busy={progress !== null}
      finding={missing ? { severity: missing.severity, words: sizeWords(missing, unit) } : null}
    >
      {asString && !length && <p className="finding is-watch">A string cannot follow this route. See Route.</p>}
      <div className="button-row">
        <PlainButton primary disabled={!length} onClick={() => void add()}>
          Add it to this drive, and go to Size
        </PlainButton>
      </div>
      {problem !== '' && (
        <p className="field-echo is-wrong" role="alert">
          {problem}
        </p>
      )}
    </StringAnswered>
  );
}

/** Size's answer as lengths to ask for: its best, and the one to take where there is none. */
function lengthsBySize({ candidates, best }: SizeAnswer): LengthsToAsk {
  const other = best === null ? null : secondTo(candidates[best]!.lengthMm, { candidates });
  const second = candidates.findIndex(({ lengthMm }) => lengthMm === other);
  return {
    lengths: candidates.map(({ lengthMm, chance }) => ({ lengthMm, chance })),
    best,
    second: second < 0 ? null : second,
  };
}
