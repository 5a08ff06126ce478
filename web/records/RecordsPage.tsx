import { SearchOutlined } from '@ant-design/icons';
import { Input, Spin } from 'antd';
import { useDeferredValue, useState } from 'react';
import { NavLink, useParams } from 'react-router';
import { useShop } from '../api/shop';
import { lazyPart } from '../parts/lazy-part';
import { UnitSwitch } from '../shop/UnitSwitch';
import { BeltsOnView } from './BeltsOnView';
import { DueView } from './DueView';
import { HappenedView } from './HappenedView';
import '../bench/bench.css';
import '../ui/ledger.css';
import '../shop/shop.css';
import './records.css';
import { PageHeader } from '../ui/PageHeader';
import { useTitle } from '../ui/use-title';

const LivesView = lazyPart('Belt life', () => import('./LivesView'), <Spin className="page-spin" />);

const VIEWS = [
  { view: 'due', name: 'Due', search: 'Vehicle, plate or drive' },
  { view: 'belts', name: 'Belts on', search: 'every 6-rib belt over 80,000 km' },
  { view: 'happened', name: 'History', search: 'Vehicle, number, what was done' },
  { view: 'lives', name: 'Belt life', search: null },
] as const;

/** Over all vehicles: what is due, which belts are on, what happened, and how long belts last. */
export default function RecordsPage() {
  const { view: asked } = useParams();
  const here = VIEWS.find(({ view }) => view === asked) ?? VIEWS[0];
  const shop = useShop();
  const [search, setSearch] = useState('');
  const wanted = useDeferredValue(search.trim());
  useTitle(here.name, shop.data?.name ?? 'Shop');
  return (
    <div className="shop records">
      <PageHeader>
        <h1 className="shop-name">{shop.data?.name}</h1>
        <span className="header-tools">
          <UnitSwitch />
        </span>
      </PageHeader>
      <nav className="records-nav" aria-label="Records">
        {VIEWS.map(({ view, name }) => (
          <NavLink
            key={view}
            to={`/records/${view}`}
            className={view === here.view ? 'is-here' : ''}
            onClick={() => setSearch('')}
          >
            {name}
          </NavLink>
        ))}
      </nav>
      {here.search !== null && (
        <div className="shop-bar" role="search">
          <Input
            className="shop-search"
            prefix={<SearchOutlined />}
            allowClear
            value={search}
            placeholder={here.search}
            aria-label={`Search: ${here.name}`}
            onChange={(event) => setSearch(event.target.value)}
          />
        </div>
      )}
      <main className="records-main">
        {here.view === 'due' && <DueView search={wanted} />}
        {here.view === 'belts' && <BeltsOnView search={wanted} />}
        {here.view === 'happened' && <HappenedView search={wanted} />}
        {here.view === 'lives' && <LivesView />}
      </main>
    </div>
  );
}
