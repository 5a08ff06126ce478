import { FigureAsk, PickAsk, useFigure } from './fields';
import { useOneOf } from './asked';
import { SECTION_NAMES, SECTIONS, type Section, sectionFor } from '@emery/core/section';

const KINDS: Record<Section['kind'], string> = { ribbed: 'ribbed', vee: 'V-belt', toothed: 'toothed' };
const OPTIONS = SECTIONS.map(({ name, kind }) => ({ value: name, label: `${name}, ${KINDS[kind]}` }));
/** What most people ask for. */
const USUAL_RIBS = '6';

/** The kind of belt that is asked about: the same at every question. */
export function useBelt() {
  const [name, setName] = useOneOf('section', SECTION_NAMES, 'PK');
  const section = sectionFor(name)!;
  const ribs = useFigure('ribs', 'Ribs', 1, 60, { start: USUAL_RIBS });
  const integer = ribs.value !== null && Number.isInteger(ribs.value) ? ribs.value : null;
  const problem = ribs.problem ?? (integer === null ? 'Ribs: enter a whole number from 1 to 60.' : null);
  return { section, setName, ribsAsk: { ...ribs, problem }, ribs: section.kind === 'ribbed' ? integer : null };
}

export function BeltAsk({ belt: { section, setName, ribsAsk } }: { belt: ReturnType<typeof useBelt> }) {
  return (
    <>
      <PickAsk label="Belt" value={section.name} options={OPTIONS} onChange={setName} />
      {section.kind === 'ribbed' && <FigureAsk label="Ribs" ask={ribsAsk} />}
    </>
  );
}
