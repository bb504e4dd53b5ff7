import type { Palette } from '../plumage/plumage';
import { contrast } from '../light/contrast';

/** What a letter about a screening is made of. */
export interface LetterParts {
  readonly title: string;
  /** What the studio writes, with its line breaks. */
  readonly words: string;
  /** The screening's address, whole. */
  readonly link: string;
  /** “4 min 12 s” */
  readonly length: string;
  /** Whether a password is asked for, which is not in the letter. */
  readonly asksPassword: boolean;
  /** “12 March 2027”, when it ends; null: it stays open. */
  readonly until: string | null;
  readonly studio: string;
  readonly contact: string;
  readonly palette?: Palette | undefined;
  /** The name the poster has inside the letter; null: there is none. */
  readonly poster: string | null;
}

const USUAL = { ink: '#211d19', paper: '#f4f0e8', accent: '#a8331c' };

/** A letter as plain text: all that is in the other one. */
export function letterText(parts: LetterParts): string {
  return [
    parts.words.trim(),
    `${parts.title} (${parts.length})\n${parts.link}`,
    hints(parts),
    [parts.studio, parts.contact].filter((line) => line !== '').join('\n'),
  ]
    .filter((part) => part !== '')
    .join('\n\n')
    .concat('\n');
}

/**
 * A letter as HTML that mail programs of any age show: tables, styles on the elements, one picture that comes with it, one link. It loads nothing from anywhere, so
 * that nobody can tell that it was opened.
 */
export function letterHtml(parts: LetterParts): string {
  const { ink, paper, accent } = { ...USUAL, ...parts.palette };
  const [ground, letters] = contrast(ink, paper) >= 7 ? [paper, ink] : [USUAL.paper, USUAL.ink];
  const onAccent = contrast(accent, '#ffffff') >= 4.5 ? '#ffffff' : '#000000';
  const face = "font-family:Georgia,'Times New Roman',serif";
  const row = (inner: string, padding = '0 32px 20px') => `<tr><td style="padding:${padding}">${inner}</td></tr>`;
  const paragraphs = parts.words
    .trim()
    .split(/\n{2,}/)
    .filter((one) => one !== '')
    .map(
      (one) => `<p style="margin:0 0 14px;font-size:17px;line-height:1.5">${escaped(one).replaceAll('\n', '<br>')}</p>`,
    )
    .join('');
  const hint = hints(parts);
  const sign = [parts.studio, parts.contact]
    .filter((line) => line !== '')
    .map(escaped)
    .join('<br>');
  const picture =
    parts.poster === null
      ? ''
      : row(
          `<a href="${escaped(parts.link)}"><img src="cid:${escaped(parts.poster)}" alt="" width="536" style="display:block;width:100%;height:auto;border:0;border-radius:4px"></a>`,
        );
  return `<!doctype html>
<html><head><meta charset="utf-8"><meta name="viewport" content="width=device-width"><title>${escaped(parts.title)}</title></head>
<body style="margin:0;background:${ground};color:${letters};${face}">
<table role="presentation" width="100%" cellpadding="0" cellspacing="0" style="background:${ground}"><tr><td align="center" style="padding:28px 12px">
<table role="presentation" width="600" cellpadding="0" cellspacing="0" style="max-width:600px;width:100%;color:${letters};${face}">
${row(paragraphs, '8px 32px 8px')}
${picture}
${row(`<h1 style="margin:0;font-size:28px;line-height:1.2;font-weight:normal">${escaped(parts.title)}</h1>`, '0 32px 14px')}
${row(`<a href="${escaped(parts.link)}" style="display:inline-block;padding:12px 26px;border-radius:4px;background:${accent};color:${onAccent};font-size:17px;text-decoration:none">Watch the film</a> <span style="font-size:15px;padding-left:10px">${escaped(parts.length)}</span>`)}
${hint === '' ? '' : row(`<p style="margin:0;font-size:15px;line-height:1.5">${escaped(hint)}</p>`)}
${sign === '' ? '' : row(`<p style="margin:0;padding-top:16px;border-top:1px solid ${letters}33;font-size:15px;line-height:1.5">${sign}</p>`, '4px 32px 24px')}
</table></td></tr></table></body></html>
`;
}

function hints({ asksPassword, until }: LetterParts): string {
  return [
    asksPassword ? 'It asks for a password, which you get from us another way.' : '',
    until === null ? '' : `It can be watched until ${until}.`,
  ]
    .filter((one) => one !== '')
    .join(' ');
}

const MARKS: Readonly<Record<string, string>> = { '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;', "'": '&#39;' };

/** As text within HTML, or within an attribute in quotes. */
export const escaped = (text: string): string => text.replace(/[&<>"']/g, (mark) => MARKS[mark]!);
