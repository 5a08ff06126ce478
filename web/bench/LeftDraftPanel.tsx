import { DAY_AND_TIME } from '../ui/day-and-time';
import { Button } from 'antd';
import type { LeftOldDraft } from '../state/draft-store';
import { TwoVersions } from './TwoVersions';
import type { Drive } from '@emery/core/drive';
import type { LengthUnit } from '@emery/core/quantity';

interface LeftProps {
  drive: Drive;
  draft: LeftOldDraft;
  unit: LengthUnit;
  onTakeUp: () => void;
  onKeepCopy: () => void;
  onThrowAway: () => void;
}

/** A draft that an older Emery left on this device over an older version, which nobody has decided about yet. */
export function LeftDraftPanel({ drive, draft, unit, onTakeUp, onKeepCopy, onThrowAway }: LeftProps) {
  return (
    <TwoVersions
      title={`▲ An unsaved draft of ${DAY_AND_TIME.format(new Date(draft.at))} is on this device`}
      lead="Another page changed it and could not save it. It stays here until you choose."
      mine={{ title: 'The draft', drive: draft.document }}
      theirs={{ title: 'The drive on this screen', drive }}
      names={['the draft', 'the drive']}
      unit={unit}
    >
      <Button type="primary" onClick={onKeepCopy}>
        Keep the draft as a copy
      </Button>
      <Button onClick={onTakeUp}>Continue with the draft</Button>
      <Button danger onClick={onThrowAway}>
        Discard the draft
      </Button>
    </TwoVersions>
  );
}
