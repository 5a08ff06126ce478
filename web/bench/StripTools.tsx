import { ArrowsAltOutlined, CompressOutlined, LineChartOutlined, ShrinkOutlined, UpOutlined } from '@ant-design/icons';
import type { ReactNode } from 'react';
import { useStore } from '../state/store';
import { useNarrow } from '../ui/use-narrow';
import { strip, type Strip } from '../state/strip';

/** On a phone: what stands in the strip above the question. One tap to each. */
export function StripTools() {
  const now = useStore(strip);
  if (!useNarrow()) return null;
  return (
    <div className="strip-tools" role="group" aria-label="Drawing and chart">
      {now === 'full' ? (
        <Tool to="drawing" icon={<ShrinkOutlined />} word="Smaller" />
      ) : (
        <Tool to="full" icon={<ArrowsAltOutlined />} word="Larger" />
      )}
      {now === 'chart' || now === 'folded' ? (
        <Tool to="drawing" icon={<CompressOutlined />} word="Drawing" />
      ) : (
        <Tool to="chart" icon={<LineChartOutlined />} word="Chart" />
      )}
      {now === 'folded' ? (
        <Tool to="chart" icon={<LineChartOutlined />} word="Chart" />
      ) : (
        <Tool to="folded" icon={<UpOutlined />} word="Fold" />
      )}
    </div>
  );
}

function Tool({ to, icon, word }: { to: Strip; icon: ReactNode; word: string }) {
  return (
    <button type="button" className="strip-tool" onClick={() => strip.set(to)}>
      {icon}
      <span>{word}</span>
    </button>
  );
}
