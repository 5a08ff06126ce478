import { App as AntApp, Button } from 'antd';
import { ask, type ApiProblem } from '../api/client';
import { lazyPart } from '../parts/lazy-part';
import { useBench, useBenchStores } from '../state/bench';
import type { OpenDrive } from '../state/open-drives';
import { useStore } from '../state/store';
import { useKept, useLeftDrafts, useQuestions, useSaveState } from '../state/use-open-drive';
import { PARTS } from '../together/words';
import type { Drive } from '@emery/core/drive';

const Questions = lazyPart(PARTS.question, async () => ({
  default: (await import('../together/Questions')).Questions,
}));
const LeftDraftPanel = lazyPart('The unsaved draft', async () => ({
  default: (await import('./LeftDraftPanel')).LeftDraftPanel,
}));

/** What has come between this page and the server: somebody else's save, a draft left behind, a drive that is gone. */
export function DriveNotices({ open }: { open: OpenDrive }) {
  const { opened, store, saver, left } = open;
  const { unit } = useBench('unit');
  const bench = useBenchStores();
  const save = useSaveState(saver);
  const kept = useKept(saver);
  const [draft] = useLeftDrafts(left);
  const asked = useQuestions(saver).length > 0;
  const { message } = AntApp.useApp();
  const { present: stored } = useStore(store);

  /** Makes a drive of its own of `document`. False, and said so, where that did not work. */
  const keptAsCopy = async (document: Drive, word: string): Promise<boolean> => {
    const copy = { ...document, name: `${document.name ?? 'Drive'} (${word})`.slice(0, 200) };
    try {
      await ask('POST', '/drives', { vehicleId: opened.vehicleId, document: copy });
    } catch (error) {
      void message.error(`The copy was not made, so nothing was changed. ${(error as Error).message}`);
      return false;
    }
    void message.success(`It is kept as "${copy.name}" with the same vehicle.`);
    return true;
  };
  const replaceBy = (drive: Drive) => {
    if (bench.whatIf()) bench.get().throwAwayWhatIf();
    store.dispatch({ type: 'replace', drive });
  };
  const takeUpDraft = () => {
    replaceBy(draft!.document);
    if (saver.isKept()) left.forget(draft!);
  };
  const bringBack = async () => {
    try {
      // What is there again already needs no bringing back.
      const vehicle = save.kind === 'gone' && save.deleted === 'vehicle';
      await ask('POST', vehicle ? `/vehicles/${opened.vehicleId}/restore` : `/drives/${opened.id}/restore`).catch(
        unlessThere,
      );
      saver.revive();
    } catch (error) {
      void message.error(`It was not restored. ${(error as Error).message}`);
    }
  };

  return (
    <>
      {asked && <Questions open={open} unit={unit} />}
      {draft && (
        <LeftDraftPanel
          key={draft.key}
          drive={stored}
          draft={draft}
          unit={unit}
          onTakeUp={takeUpDraft}
          onKeepCopy={() => void keptAsCopy(draft.document, 'draft').then((made) => made && left.forget(draft))}
          onThrowAway={() => left.forget(draft)}
        />
      )}
      {save.kind === 'refused' && (
        <p className="bench-notice" role="alert">
          <strong>■ The server did not accept this:</strong> {save.why} Your changes are{' '}
          {kept ? 'kept on this device' : 'on this page alone: leave it open'}, and Emery tries again by itself.
        </p>
      )}
      {save.kind === 'gone' && (
        <p className="bench-notice" role="alert">
          <strong>
            ■{' '}
            {save.deleted === 'vehicle'
              ? 'The vehicle of this drive has been deleted, and the drive with it.'
              : 'This drive has been deleted.'}
          </strong>{' '}
          Your changes are {kept ? 'kept here' : 'on this page alone: leave it open'}.{' '}
          <Button onClick={() => void bringBack()}>Restore it</Button>
        </p>
      )}
    </>
  );
}

/** Somebody else brought it back first: as good. */
function unlessThere(error: ApiProblem): void {
  if (error.status !== 404) throw error;
}
