import { createTransport } from 'nodemailer';
import { PassingError } from '../jobs/job-runner';
import type { MailPlace } from './places';
import { NotTakenError } from './troubles';

export interface Letter {
  readonly id: string;
  readonly to: string;
  /** What the studio is called. */
  readonly from: string;
  readonly replyTo: string | null;
  readonly subject: string;
  readonly text: string;
  readonly html: string;
  /** JPEG, by the name it has in the letter; null: there is none. */
  readonly poster: { readonly name: string; readonly bytes: Uint8Array } | null;
}

const PATIENCE_MS = 30_000;

/** Hands a letter in (SMTP). @throws {NotTakenError} for what a post office refuses for good @throws {PassingError} for what it may take later */
export async function sendLetter(place: MailPlace, letter: Letter): Promise<void> {
  const transport = createTransport({
    host: place.host,
    port: place.port,
    secure: place.secure,
    ...(place.user !== null && { auth: { user: place.user, pass: place.password ?? '' } }),
    connectionTimeout: PATIENCE_MS,
    greetingTimeout: PATIENCE_MS,
    socketTimeout: PATIENCE_MS,
    disableFileAccess: true,
    disableUrlAccess: true,
  });
  try {
    await transport.sendMail({
      messageId: `<${letter.id}@${place.from.split('@')[1] ?? 'localhost'}>`,
      from: { name: letter.from, address: place.from },
      to: { name: '', address: letter.to },
      ...(letter.replyTo !== null && { replyTo: letter.replyTo }),
      subject: letter.subject,
      text: letter.text,
      html: letter.html,
      attachments: letter.poster
        ? [
            {
              filename: 'film.jpg',
              cid: letter.poster.name,
              content: Buffer.from(letter.poster.bytes),
              contentType: 'image/jpeg',
            },
          ]
        : [],
    });
  } catch (error) {
    const { responseCode, response, command } = error as { responseCode?: number; response?: string; command?: string };
    const said = response?.replace(/^\d{3}[ -]/, '').slice(0, 200) ?? '';
    if (responseCode !== undefined && responseCode >= 500 && command !== 'AUTH LOGIN' && command !== 'AUTH PLAIN')
      throw new NotTakenError(`The post came back: ${said || `it was refused (${responseCode})`}.`, { cause: error });
    throw new PassingError(
      responseCode === undefined
        ? 'The post office cannot be reached.'
        : `The post office said: ${said || responseCode}.`,
      { cause: error },
    );
  } finally {
    transport.close();
  }
}
