import { edit, useBench } from '../state/bench';
import { AskCard } from '../ui/AskCard';
import { changePulley, findPulley, type PulleyKind } from '@emery/core/drive';
import { kindsAsked, PULLEY_KIND_WORDS } from '@emery/core/inspect';

/** Which kind of pulley it is, where what a hand feels goes by that: asked first, and kept with the pulley. */
export function KindCard({ pulley }: { pulley: string }) {
  const { drive, dispatch } = useBench('drive', 'dispatch');
  const kinds = kindsAsked(drive, pulley);
  if (kinds.length === 0) return null;
  const said = findPulley(drive, pulley)?.kind;
  const say = (kind: PulleyKind) =>
    dispatch(edit((d) => changePulley(d, pulley, { kind: said === kind ? undefined : kind })));
  return (
    <AskCard<PulleyKind>
      label="Kind of pulley"
      ask="Which kind of pulley is it?"
      how={
        <ul>
          {kinds.map((kind) => (
            <li key={kind}>
              {PULLEY_KIND_WORDS[kind].name}: {PULLEY_KIND_WORDS[kind].how}.
            </li>
          ))}
        </ul>
      }
      brief
      outcomes={kinds.map((kind) => ({ outcome: kind, label: PULLEY_KIND_WORDS[kind].name }))}
      said={said}
      onSay={say}
    />
  );
}
