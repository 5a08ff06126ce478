import { DownloadOutlined, PrinterOutlined } from '@ant-design/icons';
import { App as AntApp, Button } from 'antd';
import { useState, type ReactNode } from 'react';
import { Link } from 'react-router';
import { download } from './card-files';
import '../bench/bench.css';
import './routing-card.css';
import { PageHeader } from '../ui/PageHeader';

interface Props {
  title: string;
  /** Where one came from, and what that is called. */
  back: string;
  backName?: string;
  /** How it lies on paper. */
  paper: 'across' | 'upright' | 'a5';
  /** The name of its files, without an ending, and what makes the PDF. */
  name: string;
  makePdf: () => Promise<Blob>;
  /** Files of other kinds. */
  more?: ReactNode;
  children: ReactNode;
}

/** What is printed, with the ways onto paper and into files above it. */
export function CardPage({ title, back, backName = 'Back to the bench', paper, name, makePdf, more, children }: Props) {
  const { message } = AntApp.useApp();
  const [busy, setBusy] = useState(false);
  const pdf = async () => {
    setBusy(true);
    try {
      download(`${name}.pdf`, await makePdf(), 'application/pdf');
    } catch (problem) {
      void message.error(`The PDF was not made: ${(problem as Error).message}. You can also print to a PDF.`);
    } finally {
      setBusy(false);
    }
  };
  return (
    <div className={`card-page is-${paper}`}>
      <PageHeader>
        <h1 className="header-where card-title">{title}</h1>
        <Link to={back} className="header-link">
          {backName}
        </Link>
      </PageHeader>
      <div className="card-bar">
        <Button type="primary" icon={<PrinterOutlined />} onClick={() => window.print()}>
          Print
        </Button>
        <Button icon={<DownloadOutlined />} loading={busy} onClick={() => void pdf()}>
          PDF
        </Button>
        {more}
      </div>
      {children}
    </div>
  );
}

/** The name of a file about something, safe on any disk. */
export const fileNameOf = (...parts: readonly string[]): string =>
  parts
    .join(' ')
    .replace(/[^\w]+/g, '-')
    .toLowerCase();
