import { HistoryOutlined, QuestionOutlined, RedoOutlined, UndoOutlined } from '@ant-design/icons';
import { Button, Tooltip } from 'antd';
import { memo, useCallback, useState } from 'react';
import { OnMyPhone } from '../access/OnMyPhone';
import { PAST } from '../keep/words';
import { lazyPart } from '../parts/lazy-part';
import { UnitSwitch } from '../shop/UnitSwitch';
import { edit, useBench, useBenchStores, useDrive } from '../state/bench';
import { type DriveAction, runOfEdits } from '../state/drive-history';
import type { OpenDrive } from '../state/open-drives';
import { useKept, useSaveState } from '../state/use-open-drive';
import { SaveSign } from './SaveSign';
import { placeOf } from './place';
import { useNarrow } from '../ui/use-narrow';
import { OthersHere } from '../together/OthersHere';
import { useOwnText } from '../ui/use-own-text';
import { PageHeader } from '../ui/PageHeader';
import { useTitle } from '../ui/use-title';

const PastDialog = lazyPart(PAST.open, () => import('../keep/PastDialog'));

/** Whose drive it is, whether it is saved, and what can be done at every stage. */
export function BenchHeader({ open: { opened, saver }, showKeys }: { open: OpenDrive; showKeys: () => void }) {
  const { canUndo, canRedo, dispatch } = useBench('canUndo', 'canRedo', 'dispatch');
  return (
    <PageHeader>
      <span className="header-where">
        <h1 className="header-vehicle">{opened.vehicleName}</h1>
        <DriveName vehicle={opened.vehicleName} />
      </span>
      <SaveSign state={useSaveState(saver)} kept={useKept(saver)} />
      <OthersHere id={opened.id} />
      <HeaderTools id={opened.id} canUndo={canUndo} canRedo={canRedo} dispatch={dispatch} showKeys={showKeys} />
    </PageHeader>
  );
}

const DriveName = memo(function DriveName({ vehicle }: { vehicle: string }) {
  const { startWhatIf, dispatch } = useBench('startWhatIf', 'dispatch');
  const name = useDrive(({ name: given = '' }) => given);
  useTitle(vehicle, name || 'Drive');
  const own = useOwnText(name, (text) => dispatch(edit((d) => ({ ...d, name: text }), runOfEdits('name'))));
  return (
    <input
      className="header-name"
      aria-label="Name of the drive"
      placeholder="Drive without a name"
      maxLength={200}
      size={Math.max(8, name.length)}
      disabled={startWhatIf === null}
      {...own}
    />
  );
});

interface HeaderToolsProps {
  id: string;
  canUndo: boolean;
  canRedo: boolean;
  dispatch: (action: DriveAction) => void;
  showKeys: () => void;
}

/** Kept out of a drag's redraw, like all that is not the drive. */
const HeaderTools = memo(function HeaderTools({ id, canUndo, canRedo, dispatch, showKeys }: HeaderToolsProps) {
  const { selection } = useBenchStores();
  // On a phone there are no keys, it needs no code for another phone, and units stand with the settings.
  const narrow = useNarrow();
  const [past, setPast] = useState(false);
  const inHand = useCallback(() => placeOf(selection.get()), [selection]);
  return (
    <span className="header-tools">
      <Tooltip title="Undo (Ctrl+Z)">
        <Button
          type="text"
          icon={<UndoOutlined />}
          aria-label="Undo"
          disabled={!canUndo}
          onClick={() => dispatch({ type: 'undo' })}
        />
      </Tooltip>
      <Tooltip title="Redo (Ctrl+Shift+Z)">
        <Button
          type="text"
          icon={<RedoOutlined />}
          aria-label="Redo"
          disabled={!canRedo}
          onClick={() => dispatch({ type: 'redo' })}
        />
      </Tooltip>
      <Tooltip title={PAST.open}>
        <Button type="text" icon={<HistoryOutlined />} aria-label={PAST.open} onClick={() => setPast(true)} />
      </Tooltip>
      {past && <PastDialog id={id} onClose={() => setPast(false)} />}
      {!narrow && (
        <>
          <UnitSwitch />
          <OnMyPhone place={inHand} />
          <Button type="text" icon={<QuestionOutlined />} aria-label="Keys" onClick={showKeys} />
        </>
      )}
    </span>
  );
});
