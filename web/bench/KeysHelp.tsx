import { Modal } from 'antd';

const KEYS: [string, string][] = [
  ['1, 2, 3, 4', 'Survey, Route, Size, Speeds'],
  ['Tab', 'next pulley or field'],
  ['Arrow keys', 'move the pulley in hand by 1 mm, with Shift by 10 mm'],
  ['Enter or Space', 'take a pulley in hand; while tapping a route, put it on'],
  ['F', 'flip the belt at the pulley in hand (Route)'],
  ['Delete', 'delete the pulley in hand (Survey), take it off the belt (Route)'],
  ['Esc', 'let go; end tapping'],
  ['Ctrl+Z, Ctrl+Shift+Z', 'undo, redo'],
  ['Arrow keys, Enter, N, Delete', 'in the picture: move, put a point, go to the next one, take it out'],
  ['0', 'show all of the drive'],
  ['?', 'this list'],
];

export function KeysHelp({ open, onClose }: { open: boolean; onClose: () => void }) {
  return (
    <Modal title="Keys" open={open} onCancel={onClose} footer={null}>
      <dl className="keys">
        {KEYS.map(([key, what]) => (
          <div key={key}>
            <dt>{key}</dt>
            <dd>{what}</dd>
          </div>
        ))}
      </dl>
    </Modal>
  );
}
