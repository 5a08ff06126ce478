import { useEffect, useRef, useState, type ComponentType } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import { useShop } from '../api/shop';
import { UnitSwitch } from '../shop/UnitSwitch';
import { AskedProvider, useAsked } from './asked';
import { HeadlinePlace } from './Headline';
import { lazyPart } from '../parts/lazy-part';
import StringPanel from './StringPanel';
import '../bench/bench.css';
import '../ui/ledger.css';
import './counter.css';
import { PageHeader } from '../ui/PageHeader';
import { useKeys, withModifier } from '../ui/use-key';
import { useTitle } from '../ui/use-title';

const MarkingPanel = lazyPart('The question', () => import('./MarkingPanel'));
const PulleysPanel = lazyPart('The question', () => import('./PulleysPanel'));
const TensionPanel = lazyPart('The question', () => import('./TensionPanel'));
const ChangePanel = lazyPart('The question', () => import('./ChangePanel'));

interface Question {
  id: string;
  name: string;
  asks: string;
  Panel: ComponentType;
  /** True where there is no one answer. */
  several?: boolean;
}

/** Question over a counter, the commonest first. */
const QUESTIONS: readonly Question[] = [
  { id: 'string', name: 'String', asks: 'I have a string length. Which belt do I ask for?', Panel: StringPanel },
  { id: 'marking', name: 'Marking', asks: 'What does this marking mean?', Panel: MarkingPanel },
  { id: 'pulleys', name: 'Two pulleys', asks: 'How fast does it turn, and how long is the belt?', Panel: PulleysPanel },
  { id: 'tension', name: 'Tension', asks: 'Is it tight enough?', Panel: TensionPanel },
  {
    id: 'change',
    name: 'Conversions',
    asks: 'Inches, torque, threads, shims, rims.',
    Panel: ChangePanel,
    several: true,
  },
];

/** One question, answered as it is typed, with no vehicle and nothing drawn. */
export default function CounterPage() {
  return (
    <AskedProvider>
      <Counter />
    </AskedProvider>
  );
}

function Counter() {
  const { question: id } = useParams();
  const { put, search, unit } = useAsked();
  const navigate = useNavigate();
  const shop = useShop();
  const now = QUESTIONS.find((question) => question.id === id) ?? QUESTIONS[0]!;
  useTitle(now.name, 'Counter');
  useKeys((event) => {
    if (withModifier(event)) return false;
    const asked = /^[1-9]$/.test(event.key) ? QUESTIONS[Number(event.key) - 1] : undefined;
    if (asked) void navigate(`/counter/${asked.id}${search}`);
    else if (event.key === 'Escape') void navigate('/');
    else return false;
    return true;
  });
  const rail = useRef<HTMLElement>(null);
  useEffect(() => {
    rail.current?.querySelector('[aria-current]')?.scrollIntoView({ block: 'nearest', inline: 'center' });
  }, [now.id]);
  const [place, setPlace] = useState<HTMLElement | null>(null);
  const { Panel } = now;
  return (
    <div className="counter">
      <PageHeader>
        <h1 className="counter-title">
          Counter <span className="counter-shop">{shop.data?.name}</span>
        </h1>
        <span className="header-tools">
          <UnitSwitch value={unit} onSwitch={() => put({ unit: '' })} />
        </span>
      </PageHeader>
      <nav ref={rail} className="counter-rail" aria-label="Question">
        {QUESTIONS.map(({ id: to, name }, k) => (
          <Link
            key={to}
            to={`/counter/${to}${search}`}
            className={`counter-tab${to === now.id ? ' is-now' : ''}`}
            aria-current={to === now.id ? 'page' : undefined}
          >
            <span className="counter-number" aria-hidden>
              {k + 1}
            </span>
            {name}
          </Link>
        ))}
      </nav>
      {/* It has its place before there is an answer: nothing moves away under the thumb with the first digit. */}
      {!now.several && (
        <a href="#answer" className="counter-headline" ref={setPlace} data-waiting="Answer" aria-hidden tabIndex={-1} />
      )}
      <main className="counter-sheet sheet" key={now.id}>
        <p className="counter-question">{now.asks}</p>
        <div className="counter-parts">
          <HeadlinePlace value={place}>
            <Panel />
          </HeadlinePlace>
        </div>
      </main>
    </div>
  );
}
