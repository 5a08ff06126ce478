import { STAGES } from '../stages';
import type { Stage } from '../stages/stage';
import { useKeys, withModifier } from '../ui/use-key';
import { useBenchStores, type BenchStores } from '../state/bench';

interface Options {
  stage: Stage;
  goTo: (stage: string) => void;
  showKeys: () => void;
}

/** The bench's keys, and those of the stage in hand. None of them works while something is being written. */
export function useBenchKeys({ stage, goTo, showKeys }: Options): void {
  const bench = useBenchStores();
  useKeys((event) => {
    const undoes = (event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'z';
    if (!undoes) return !withModifier(event) && act(event.key, bench, { stage, goTo, showKeys });
    bench.get().dispatch({ type: event.shiftKey ? 'redo' : 'undo' });
    return true;
  });
}

function act(key: string, bench: BenchStores, { stage, goTo, showKeys }: Options): boolean {
  const named = key.length === 1 ? key.toLowerCase() : key;
  const own = stage.keys?.find((key) => key.key === named);
  if (own) return own.run(bench);
  const numbered = /^[1-9]$/.test(key) ? STAGES[Number(key) - 1] : undefined;
  if (numbered) goTo(numbered.id);
  else if (key === '?') showKeys();
  else if (key === 'Escape') {
    const { tapping, setTapping, select } = bench.get();
    if (tapping) setTapping(false);
    else select(null);
  } else return false;
  return true;
}
