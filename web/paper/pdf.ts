import PDFDocument from 'pdfkit';
import SVGtoPDF from 'svg-to-pdfkit';
import boldUrl from 'dejavu-fonts-ttf/ttf/DejaVuSansCondensed-Bold.ttf?url';
import regularUrl from 'dejavu-fonts-ttf/ttf/DejaVuSansCondensed.ttf?url';

/** Points of a mm: a PDF is measured in points. */
const POINT = 72 / 25.4;

type Doc = InstanceType<typeof PDFDocument>;
type Struct = ReturnType<Doc['struct']>;
type FontName = 'regular' | 'bold';

/** A column of a table. */
interface PdfColumn {
  head: string;
  /** mm. */
  width: number;
}

interface PdfLayout {
  title: string;
  /** mm. */
  width: number;
  height: number;
  margin: number;
}

const font = async (address: string): Promise<ArrayBuffer> => {
  const answer = await fetch(address);
  if (!answer.ok) throw new Error('its font could not be loaded');
  return answer.arrayBuffer();
};

/** All that a document writes, once it has ended. */
const writtenTo = (doc: Doc): Promise<Blob> =>
  new Promise((resolve, reject) => {
    const parts: BlobPart[] = [];
    doc.on('data', (part: Uint8Array<ArrayBuffer>) => parts.push(part));
    doc.on('end', () => resolve(new Blob(parts, { type: 'application/pdf' })));
    doc.on('error', reject);
  });

/**
 * A tagged PDF (ISO 14289-1) with a title and a language. Its one font holds Latin with all accents, Greek and
 * Cyrillic; only the letters that are used go along. Lengths in mm from the top left corner.
 */
export class Pdf {
  /** Where the next line goes, mm from the top. */
  y: number;

  private constructor(
    private readonly doc: Doc,
    readonly layout: PdfLayout,
    private readonly root: Struct,
    private readonly blob: Promise<Blob>,
  ) {
    this.y = layout.margin;
  }

  static async open(layout: PdfLayout): Promise<Pdf> {
    const [regular, bold] = await Promise.all([font(regularUrl), font(boldUrl)]);
    const doc = new PDFDocument({
      size: [layout.width * POINT, layout.height * POINT],
      margin: 0,
      pdfVersion: '1.7',
      // Its types do not name it yet; it writes the metadata that ISO 14289-1 asks for.
      subset: 'PDF/UA' as never,
      lang: 'en',
      tagged: true,
      displayTitle: true,
      info: { Title: layout.title, Creator: 'Emery', Producer: 'Emery' },
      font: '',
    });
    const blob = writtenTo(doc);
    doc.registerFont('regular', regular);
    doc.registerFont('bold', bold);
    doc.font('regular');
    const root = doc.struct('Document');
    doc.addStructure(root);
    return new Pdf(doc, layout, root, blob);
  }

  async finish(): Promise<Blob> {
    this.root.end();
    this.doc.end();
    return this.blob;
  }

  /** The width between the margins, mm. */
  get inner(): number {
    return this.layout.width - 2 * this.layout.margin;
  }

  heightOf(text: string, width: number, size: number, name: FontName = 'regular'): number {
    return (
      this.doc
        .font(name)
        .fontSize(size)
        .heightOfString(text, { width: width * POINT }) / POINT
    );
  }

  /** A new page where what comes next has no room on this one. */
  room(height: number): void {
    if (this.y + height <= this.layout.height - this.layout.margin) return;
    this.doc.addPage();
    this.y = this.layout.margin;
  }

  /** A heading of a level, 1 the first, or a paragraph (`P`), at the margin or where it is told; moves on below it. */
  text(
    tag: 'H1' | 'H2' | 'P',
    text: string,
    size: number,
    at: { x?: number; width?: number; right?: boolean } = {},
  ): void {
    const { x = this.layout.margin, width = this.inner, right = false } = at;
    const name: FontName = tag === 'P' ? 'regular' : 'bold';
    const height = this.heightOf(text, width, size, name);
    this.room(height);
    this.root.add(this.doc.struct(tag, {}, () => this.write(text, x, this.y, width, size, name, right)));
    this.y += height;
  }

  /** Steps with a box each to tick, their number, and their words; what cannot be parted stays on one page. */
  steps(steps: readonly { number: number; text: string; done: boolean }[], size: number): void {
    const list = this.doc.struct('L');
    this.root.add(list);
    const { margin } = this.layout;
    const left = margin + 14;
    const width = this.layout.width - margin - left;
    for (const { number, text, done } of steps) {
      const height = Math.max(4, this.heightOf(text, width, size)) + 1.1;
      this.room(height);
      const { y } = this;
      this.artifact(() => this.box(margin + 1, y + 0.3, done));
      const item = this.doc.struct('LI');
      list.add(item);
      const label = `${done ? '✓ ' : ''}${number}`;
      item.add(this.doc.struct('Lbl', {}, () => this.write(label, margin + 5.5, y, 7.5, size, 'regular', true)));
      item.add(this.doc.struct('LBody', {}, () => this.write(text, left, y, width, size, 'regular', false)));
      item.end();
      this.y += height;
    }
    list.end();
  }

  /** A table with a head on every page. */
  table(columns: readonly PdfColumn[], rows: readonly (readonly string[])[], size: number): void {
    const table = this.doc.struct('Table');
    this.root.add(table);
    const heads = columns.map(({ head }) => head);
    const row = (cells: readonly string[], tag: 'TH' | 'TD') => {
      const name: FontName = tag === 'TH' ? 'bold' : 'regular';
      const height = Math.max(...cells.map((cell, k) => this.heightOf(cell, columns[k]!.width - 2, size, name))) + 2;
      if (tag === 'TD' && this.y + height > this.layout.height - this.layout.margin) {
        this.room(Infinity);
        row(heads, 'TH');
      }
      const { y } = this;
      this.artifact(() => {
        const { doc } = this;
        const [from, to, at] = [this.layout.margin, this.layout.width - this.layout.margin, y + height].map(
          (mm) => mm * POINT,
        ) as [number, number, number];
        doc
          .lineWidth(tag === 'TH' ? 0.8 : 0.25)
          .moveTo(from, at)
          .lineTo(to, at)
          .stroke('#000');
      });
      const line = this.doc.struct('TR');
      table.add(line);
      let x = this.layout.margin;
      cells.forEach((cell, k) => {
        const left = x + 1;
        const width = columns[k]!.width - 2;
        line.add(this.doc.struct(tag, {}, () => this.write(cell, left, y + 1, width, size, name, false)));
        x += columns[k]!.width;
      });
      line.end();
      this.y += height;
    };
    row(heads, 'TH');
    for (const cells of rows) row(cells, 'TD');
    table.end();
  }

  /** A drawing with what it shows in words, for who cannot see it. */
  figure(svg: SVGSVGElement, words: string, box: { x: number; y: number; width: number; height: number }): void {
    const figure = this.doc.struct('Figure', { alt: words }, () => {
      SVGtoPDF(this.doc, svg.outerHTML, box.x * POINT, box.y * POINT, {
        width: box.width * POINT,
        height: box.height * POINT,
        preserveAspectRatio: 'xMidYMid meet',
        fontCallback: (_family: string, bold: boolean) => (bold ? 'bold' : 'regular'),
      });
    });
    this.root.add(figure);
  }

  private write(text: string, x: number, y: number, width: number, size: number, name: FontName, right: boolean): void {
    this.doc
      .font(name)
      .fontSize(size)
      .fillColor('#000')
      .text(text, x * POINT, y * POINT, { width: width * POINT, align: right ? 'right' : 'left' });
  }

  /** What is drawn for the eye alone. */
  private artifact(draw: () => void): void {
    this.doc.markContent('Artifact', { type: 'Layout' });
    draw();
    this.doc.endMarkedContent();
  }

  private box(x: number, y: number, ticked: boolean): void {
    const { doc } = this;
    const [left, top, side] = [x * POINT, y * POINT, 3 * POINT];
    doc.lineWidth(0.7).rect(left, top, side, side).stroke('#000');
    if (ticked)
      doc
        .moveTo(left + side * 0.2, top + side * 0.5)
        .lineTo(left + side * 0.45, top + side * 0.8)
        .lineTo(left + side * 0.85, top + side * 0.15)
        .stroke('#000');
  }
}
