import { useUnit } from '../habits/habits';
import { fixed, grouped } from '@emery/core/quantity';
import { DeleteOutlined, DownloadOutlined, SearchOutlined } from '@ant-design/icons';
import { App as AntApp, Button, Input, Progress, Spin } from 'antd';
import { useQueryClient } from '@tanstack/react-query';
import { useDeferredValue, useState } from 'react';
import { ask } from '../api/client';
import { useStock } from '../api/stock';
import { Choice } from '../ui/Choice';
import { useCoreRun } from '../state/use-core-sum';
import { FileButton } from '../ui/FileButton';
import { LengthFigure } from '../ui/LengthFigure';
import { StoppedSum } from '../ui/StoppedSum';
import { UnitSwitch } from '../shop/UnitSwitch';
import { ImportPreview } from './ImportPreview';
import type { StockFile } from './read-stock-file';
import '../bench/bench.css';
import '../ui/ledger.css';
import '../shop/shop.css';
import './stock.css';
import { SECTION_NAMES } from '@emery/core/section';
import { PageHeader } from '../ui/PageHeader';

const SHELF = 'On the shelf';

/** The shop's own list of belts: what can be had, and what lies on the shelf. */
export default function StockPage() {
  const unit = useUnit();
  const [search, setSearch] = useState('');
  const [section, setSection] = useState('');
  const [ribs, setRibs] = useState('');
  const filter = useDeferredValue({ search: search.trim(), section, ribs: ribs.trim() });
  const list = useStock(filter);
  const client = useQueryClient();
  const { message } = AntApp.useApp();
  const [file, setFile] = useState<StockFile | null>(null);
  const belts = list.data?.pages.flatMap((page) => page.belts) ?? [];
  const total = list.data?.pages[0]?.total ?? 0;
  const again = () => client.invalidateQueries({ queryKey: ['stock'] });

  const [problem, setProblem] = useState('');
  const { progress, stopped, run, cancel } = useCoreRun('stock', (read) => {
    if (read.ok) setFile(read.file);
    else setProblem(read.problem);
  });
  const choose = (chosen: File) => {
    setFile(null);
    setProblem('');
    run(chosen);
  };
  const takeOut = async (id: number) => {
    try {
      await ask('DELETE', `/stock/${id}`);
    } catch (error) {
      void message.error(`The belt was not removed. ${(error as Error).message}`);
    }
    await again();
  };

  return (
    <div className="shop">
      <PageHeader>
        <h1 className="shop-name">Belts</h1>
        <span className="header-tools">
          <UnitSwitch />
        </span>
      </PageHeader>
      <div className="shop-bar">
        <Input
          className="shop-search"
          prefix={<SearchOutlined />}
          allowClear
          value={search}
          placeholder="Supplier code or length in mm"
          aria-label="Search the belts"
          onChange={(event) => setSearch(event.target.value)}
        />
        <FileButton primary label="Import a CSV list" what="CSV file of belts" accept=".csv,text/csv" onFile={choose} />
        <Button icon={<DownloadOutlined />} href="/api/stock/file" download disabled={total === 0}>
          Save as CSV
        </Button>
      </div>
      <main className="shop-list" aria-busy={list.isFetching}>
        {progress !== null && (
          <div className="button-row">
            <Progress percent={Math.round(100 * progress)} showInfo={false} aria-label="Share of the list read" />
            <Button onClick={cancel}>Cancel</Button>
          </div>
        )}
        <StoppedSum stopped={stopped} />
        {problem && (
          <p className="finding is-fault" role="alert">
            <strong>The list was not imported.</strong> {problem}
          </p>
        )}
        {file && (
          <ImportPreview
            file={file}
            onClose={() => setFile(null)}
            onTaken={async () => {
              setFile(null);
              await again();
            }}
          />
        )}
        <div className="fields stock-filter">
          <Choice
            label="Section"
            value={section}
            options={[{ value: '', label: 'All' }, ...SECTION_NAMES.map((name) => ({ value: name, label: name }))]}
            onChange={setSection}
          />
          <div className="field">
            <label className="label" htmlFor="stock-ribs">
              Ribs
            </label>
            <Input
              id="stock-ribs"
              value={ribs}
              inputMode="numeric"
              onChange={(event) => setRibs(event.target.value.replace(/\D/g, ''))}
            />
          </div>
        </div>
        {list.error && (
          <p className="finding is-fault" role="alert">
            <strong>The belts could not be loaded.</strong> {list.error.message}{' '}
            <Button onClick={() => void list.refetch()}>Try again</Button>
          </p>
        )}
        {list.isPending && <Spin className="page-spin" />}
        {list.isSuccess && total === 0 && (
          <p className="shop-none">
            {filter.search || filter.section || filter.ribs
              ? 'No belt on the list matches.'
              : "No list of belts yet, so Size uses common lengths. Import your supplier's as CSV with the columns section, ribs, length (mm), code, price and shelf, or marking instead of the first three."}
          </p>
        )}
        {belts.length > 0 && (
          <section className="sheet stock-sheet" aria-label="Belts">
            <p className="quiet">{grouped(total)} belts</p>
            <table className="ledger-table folds">
              <thead>
                <tr>
                  <th>Section</th>
                  <th className="figure">Ribs</th>
                  <th className="figure">Length</th>
                  <th>Code</th>
                  <th className="figure">Price</th>
                  <th className="figure">{SHELF}</th>
                  <th aria-label="Remove" />
                </tr>
              </thead>
              <tbody>
                {belts.map((belt) => (
                  <tr key={belt.id}>
                    <td>{belt.section}</td>
                    <td className="figure" data-head="ribs">
                      {belt.ribs ?? '—'}
                    </td>
                    <td className="figure" data-head="length">
                      <LengthFigure mm={belt.lengthMm} unit={unit} />
                    </td>
                    <td data-head="code">{belt.code}</td>
                    <td className="figure" data-head="price">
                      {belt.price === null ? '—' : fixed(belt.price, 2)}
                    </td>
                    <td className="figure" data-head={SHELF.toLowerCase()}>
                      {belt.shelf}
                    </td>
                    <td>
                      <Button
                        type="text"
                        icon={<DeleteOutlined />}
                        aria-label={`Remove ${belt.code || belt.lengthMm}`}
                        onClick={() => void takeOut(belt.id)}
                      />
                    </td>
                  </tr>
                ))}
              </tbody>
            </table>
          </section>
        )}
        {list.hasNextPage && (
          <Button block loading={list.isFetchingNextPage} onClick={() => void list.fetchNextPage()}>
            Show more ({grouped(total - belts.length)} left)
          </Button>
        )}
      </main>
    </div>
  );
}
