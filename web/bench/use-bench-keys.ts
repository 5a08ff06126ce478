import { useEffect } from 'react';
import { edit, type Bench, type Stage } from './bench-context';
import { STAGES } from './stages';
import { flipStop, removeStation, removeStop } from '@emery/core/drive';

interface Options {
  bench: Bench;
  goTo: (stage: Stage) => void;
  showKeys: () => void;
}

/** The bench's keys. None of them works while something is being written. */
export function useBenchKeys({ bench, goTo, showKeys }: Options): void {
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const target = event.target as HTMLElement;
      const undoes = (event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'z';
      if (target.closest('input, textarea, select, [contenteditable], [role="combobox"], .ant-modal')) return;
      if (undoes) bench.dispatch({ type: event.shiftKey ? 'redo' : 'undo' });
      else if (event.ctrlKey || event.metaKey || event.altKey) return;
      else if (!act(event.key, bench, goTo, showKeys)) return;
      event.preventDefault();
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  });
}

function act(key: string, bench: Bench, goTo: (stage: Stage) => void, showKeys: () => void): boolean {
  const { belt, selected, stage, tapping } = bench;
  const numbered = STAGES[Number(key) - 1];
  if (/^[1-9]$/.test(key) && numbered) goTo(numbered.id);
  else if (key === '?') showKeys();
  else if (key === 'Escape') {
    if (bench.picture.marking !== null) bench.setPicture({ marking: null });
    else if (tapping) bench.setTapping(false);
    else bench.select(null);
  } else if (
    stage === 'route' &&
    belt &&
    selected?.kind === 'pulley' &&
    (key === 'Delete' || key.toLowerCase() === 'f')
  ) {
    const index = belt.contacts.findIndex(({ station }) => station === selected.station);
    if (index < 0) return false;
    bench.dispatch(edit((d) => (key === 'Delete' ? removeStop(d, belt.id, index) : flipStop(d, belt.id, index))));
  } else if (stage === 'survey' && key === 'Delete' && selected?.kind === 'pulley') {
    bench.select(null);
    bench.dispatch(edit((d) => removeStation(d, selected.station)));
  } else return false;
  return true;
}
