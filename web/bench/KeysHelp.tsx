import { Dialog } from '../ui/Dialog';
import { STAGES } from '../stages';

const NUMBERS = STAGES.map((_, index) => index + 1).join(', ');

/** Every key: those of the bench first, then those of each stage. */
const KEYS: readonly (readonly [key: string, does: string])[] = [
  [NUMBERS, STAGES.map(({ name }) => name).join(', ')],
  ['Tab', 'next pulley or field'],
  ['Arrow keys', 'move the selected pulley by 1 mm, with Shift by 10 mm'],
  ['Enter or Space', 'select a pulley; while tapping a route, put it on'],
  ...STAGES.flatMap(({ name, keys = [] }) => keys.map(({ shown, does }) => [shown, `${does} (${name})`] as const)),
  ['Esc', 'deselect; end tapping'],
  ['Ctrl+Z, Ctrl+Shift+Z', 'undo, redo'],
  ['Arrow keys, Enter, N, Delete', 'in the picture: move, place a point, go to the next one, delete it'],
  ['0', 'show all of the drive'],
  ['C', 'the counter, from any page'],
  ['?', 'this list'],
];

export function KeysHelp({ onClose }: { onClose: () => void }) {
  return (
    <Dialog title="Keys" onClose={onClose}>
      <dl className="keys">
        {KEYS.map(([key, does]) => (
          <div key={`${key} ${does}`}>
            <dt>{key}</dt>
            <dd>{does}</dd>
          </div>
        ))}
      </dl>
    </Dialog>
  );
}
