import {
  clip,
  endPath,
  PDFDocument,
  popGraphicsState,
  pushGraphicsState,
  appendBezierCurve,
  moveTo,
  rgb,
} from 'pdf-lib';
import { LABEL_MM } from '../../core/disc/label-show';

const MM = 72 / 25.4;
const A4 = [210 * MM, 297 * MM] as const;
/** A circle of four Bézier curves: how far their handles reach, in radii. */
const HANDLE = 0.5522847498;

/** A label on a sheet of A4, in its own size, with hairlines to cut along. @param drawn a square PNG @param title of the document */
export async function labelSheet(drawn: Uint8Array, title: string): Promise<Uint8Array> {
  const document = await PDFDocument.create();
  document.setTitle(title);
  document.setCreator('Tanager');
  const page = document.addPage([...A4]);
  const picture = await document.embedPng(drawn);
  const [x, y] = [A4[0] / 2, A4[1] / 2 + 50 * MM];
  const radius = (LABEL_MM.printed / 2) * MM;
  page.pushOperators(pushGraphicsState(), ...circle(x, y, radius), clip(), endPath());
  page.drawImage(picture, { x: x - radius, y: y - radius, width: 2 * radius, height: 2 * radius });
  page.pushOperators(popGraphicsState());
  const hole = (LABEL_MM.hole / 2) * MM;
  page.drawCircle({ x, y, size: hole, color: rgb(1, 1, 1), borderColor: rgb(0.5, 0.5, 0.5), borderWidth: 0.25 });
  page.drawCircle({ x, y, size: radius, borderColor: rgb(0.5, 0.5, 0.5), borderWidth: 0.25 });
  return document.save();
}

function circle(x: number, y: number, radius: number) {
  const reach = radius * HANDLE;
  return [
    moveTo(x + radius, y),
    appendBezierCurve(x + radius, y + reach, x + reach, y + radius, x, y + radius),
    appendBezierCurve(x - reach, y + radius, x - radius, y + reach, x - radius, y),
    appendBezierCurve(x - radius, y - reach, x - reach, y - radius, x, y - radius),
    appendBezierCurve(x + reach, y - radius, x + radius, y - reach, x + radius, y),
  ];
}
