import type { HostedPlace } from '../../core/publishing/publication';
import { driveAt, type Drive } from '../disc/drive';
import type { StandIns } from '../stand-ins/open-stand-ins';

/** Where letters are handed in. */
export interface MailPlace {
  readonly host: string;
  readonly port: number;
  readonly secure: boolean;
  readonly user: string | null;
  readonly password: string | null;
  /** The address letters come from. */
  readonly from: string;
}

/** A host that is signed in to (OAuth 2.0, told by RFC 8414 at its issuer’s address). */
export interface HostPlace {
  readonly issuer: URL;
  readonly clientId: string;
  /** Null: a public client. */
  readonly clientSecret: string | null;
  /** What tells a stand-in who comes; null: somebody else’s host. */
  readonly hint: string | null;
}

/** What is reached outside: the real thing where the settings name one, else a stand-in. Null: neither. */
export interface Places {
  mail(studioId: string): MailPlace | null;
  host(place: HostedPlace, studioId: string): HostPlace | null;
  /** The disc drive of this machine. */
  drive(studioId: string): Drive | null;
  /** The page of a stand-in, for a browser on this machine; null: there is none. */
  door(place: 'mail' | 'drive' | HostedPlace, studioId: string): string | null;
}

const PATHS = { mail: 'post-room', video: 'video-host', post: 'social-page', drive: 'disc-drive' } as const;
const SETTINGS = { video: 'TANAGER_VIDEO_HOST', post: 'TANAGER_SOCIAL_PAGE' } as const;
const SUBMISSION_PORT = 587;
const TLS_PORT = 465;

/** @param standIns null: none were opened @param env settings, as docs/handing-over.md says */
export function createPlaces(
  standIns: StandIns | null,
  env: Readonly<Record<string, string | undefined>> = process.env,
): Places {
  const realMail = env.TANAGER_SMTP && URL.canParse(env.TANAGER_SMTP) ? new URL(env.TANAGER_SMTP) : null;
  const realHost = (place: HostedPlace) => {
    const text = env[SETTINGS[place]];
    return text && URL.canParse(text) ? new URL(text) : null;
  };
  return {
    mail(studioId) {
      if (realMail) {
        const secure = realMail.protocol === 'smtps:';
        return {
          host: realMail.hostname,
          port: Number(realMail.port) || (secure ? TLS_PORT : SUBMISSION_PORT),
          secure,
          user: realMail.username === '' ? null : decodeURIComponent(realMail.username),
          password: realMail.password === '' ? null : decodeURIComponent(realMail.password),
          from: env.TANAGER_MAIL_FROM ?? `films@${realMail.hostname}`,
        };
      }
      if (!standIns) return null;
      const [user, password] = standIns.keyOf(studioId).split('.') as [string, string];
      return {
        host: '127.0.0.1',
        port: standIns.smtpPort,
        secure: false,
        user,
        password,
        from: 'films@studio.example',
      };
    },
    host(place, studioId) {
      const issuer = realHost(place);
      if (issuer)
        return {
          issuer,
          clientId: env[`${SETTINGS[place]}_CLIENT`] ?? 'tanager',
          clientSecret: env[`${SETTINGS[place]}_SECRET`] ?? null,
          hint: null,
        };
      return standIns
        ? {
            issuer: new URL(`${standIns.address}/${PATHS[place]}`),
            clientId: 'tanager',
            clientSecret: null,
            hint: standIns.keyOf(studioId),
          }
        : null;
    },
    drive: (studioId) => (standIns ? driveAt(new URL(standIns.address), standIns.keyOf(studioId)) : null),
    door(place, studioId) {
      const isReal = place === 'mail' ? realMail !== null : place !== 'drive' && realHost(place) !== null;
      return standIns && !isReal ? `${standIns.address}/${PATHS[place]}?key=${standIns.keyOf(studioId)}` : null;
    },
  };
}
