import type { Report, ReportSection } from '@jubb/book';
import { createRequire } from 'node:module';
import type pdfmake from 'pdfmake';
import type { Content, ContentStack, ContentText, TableCell, TDocumentDefinitions } from 'pdfmake/interfaces.js';

const INK = '#1D2327';
const SOFT = '#5A6268';
const RULE = '#C8C2B3';
const CARE = '#F2E4C4';

const resolve = createRequire(import.meta.url).resolve;
const [regular, bold] = [400, 600].map((weight) => resolve(`@fontsource/barlow/files/barlow-latin-${weight}-normal.woff`)) as [
  string,
  string,
];
let printer: Promise<typeof pdfmake> | undefined;

/** Read when something is printed first: it is large, and a server is there sooner without it. */
async function readPrinter(): Promise<typeof pdfmake> {
  const { default: read } = await import('pdfmake');
  read.setFonts({ Barlow: { normal: regular, bold, italics: regular, bolditalics: bold } });
  // Nothing is fetched, and nothing but the two fonts is read from disk.
  read.setUrlAccessPolicy(() => false);
  read.setLocalAccessPolicy((path) => path === regular || path === bold);
  return read;
}

/** Points that a logo takes at most. */
const LOGO = [150, 42] as [number, number];

/** The report on A4 paper, under the shop's name and its picture (JPEG) where it has one. */
export async function reportPdf(report: Report, shop: string, logo?: Buffer): Promise<Buffer> {
  const definition: TDocumentDefinitions = {
    pageSize: 'A4',
    pageMargins: [40, 46, 40, 56],
    info: { title: report.title, author: shop, creator: 'Jubb' },
    defaultStyle: { font: 'Barlow', fontSize: 9, color: INK, lineHeight: 1.15 },
    footer: (page, pages) => ({
      margin: [40, 12, 40, 0],
      columns: [
        { text: `Chain ${report.hash}`, fontSize: 6.5, color: SOFT, width: '*' },
        { text: `${shop}, page ${page} of ${pages}`, fontSize: 7.5, color: SOFT, alignment: 'right', width: 140 },
      ],
    }),
    content: [
      ...(logo ? [{ image: `data:image/jpeg;base64,${logo.toString('base64')}`, fit: LOGO, margin: [0, 0, 0, 6] } satisfies Content] : []),
      { text: shop, fontSize: 10, color: SOFT },
      { text: report.title, fontSize: 18, bold: true, margin: [0, 0, 0, 8] },
      {
        table: { widths: [90, '*'], body: report.facts.map(([label, text]) => [{ text: label, color: SOFT }, text]) },
        layout: 'noBorders',
      },
      ...report.sections.flatMap(sectionContent),
    ],
  };
  return (await (printer ??= readPrinter())).createPdf(definition).getBuffer();
}

function sectionContent(section: ReportSection): Content[] {
  const title: Content = { text: section.title, fontSize: 12, bold: true, margin: [0, 12, 0, 3] };
  const text = (section.text ?? []).map((line): Content => ({ text: line, margin: [0, 0, 0, 3] }));
  if (section.care) {
    return [
      title,
      {
        table: { widths: ['*'], body: [[{ stack: text, fillColor: CARE, margin: [6, 4, 6, 2] }]] },
        layout: { hLineWidth: () => 0, vLineWidth: (index) => (index === 0 ? 4 : 0), vLineColor: () => '#9A6A14' },
      },
    ];
  }
  return section.table ? [tableContent(section.table, [title, ...text])] : [title, ...text];
}

/** The heading is the table's own first row: it goes where the rows go, and stands again on each page. */
function tableContent({ head, rows }: NonNullable<ReportSection['table']>, heading: Content[]): Content {
  const across = (cell: ContentText | ContentStack): TableCell[] => [
    { ...cell, colSpan: head.length } as TableCell,
    ...head.slice(1).map((): TableCell => ''),
  ];
  const body = rows.flatMap(({ cells, struck }) => [
    cells.map((cell): TableCell => (struck ? { text: cell, decoration: 'lineThrough', color: SOFT } : { text: cell })),
    ...(struck ? [across({ text: struck, italics: true, color: SOFT, fontSize: 8 })] : []),
  ]);
  return {
    table: {
      headerRows: 2,
      keepWithHeaderRows: 1,
      dontBreakRows: true,
      widths: head.map((_, index) => (index === 0 && head.length < 8 ? '*' : 'auto')),
      body: [across({ stack: heading }), head.map((cell): TableCell => ({ text: cell, bold: true, color: SOFT })), ...body],
    },
    layout: {
      hLineWidth: (index) => (index < 2 ? 0 : 0.5),
      vLineWidth: () => 0,
      hLineColor: () => RULE,
      paddingLeft: () => 0,
      paddingRight: () => 6,
      paddingTop: () => 2,
      paddingBottom: () => 1,
    },
  };
}
