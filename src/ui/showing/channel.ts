import type { ShowingCommand, ShowingState } from '../../core/showing/showing';
import type { ShowId } from '../../core/show/ids';

/** What the projector tells whoever listens. */
export interface ShowingNews {
  readonly state: ShowingState;
  readonly rehearsed: { readonly done: number; readonly of: number; readonly sounds: boolean } | null;
  readonly framesPerSecond: number | null;
  readonly fullScreen: boolean;
  /** The browser lets it sound: somebody has clicked in it. */
  readonly mayHear: boolean;
}

type Message =
  | { readonly kind: 'news'; readonly news: ShowingNews }
  | { readonly kind: 'do'; readonly command: ShowingCommand }
  | { readonly kind: 'hello' }
  | { readonly kind: 'gone' };

/** What joins the windows of a showing on one machine, whether the server is there or not. */
export interface ShowingChannel {
  send(command: ShowingCommand): void;
  tell(news: ShowingNews): void;
  /** Asks a projector that may be there already what it is doing. */
  greet(): void;
  leave(): void;
  close(): void;
}

interface Hearing {
  readonly command?: (command: ShowingCommand) => void;
  /** Null when the projector was closed. */
  readonly news?: (news: ShowingNews | null) => void;
  readonly hello?: () => void;
}

export function openChannel(show: ShowId, hearing: Hearing): ShowingChannel {
  const channel = new BroadcastChannel(`tanager-showing-${show}`);
  channel.onmessage = ({ data }: MessageEvent<Message>) => {
    if (data.kind === 'news') hearing.news?.(data.news);
    if (data.kind === 'gone') hearing.news?.(null);
    if (data.kind === 'do') hearing.command?.(data.command);
    if (data.kind === 'hello') hearing.hello?.();
  };
  const post = (message: Message) => channel.postMessage(message);
  return {
    send: (command) => post({ kind: 'do', command }),
    tell: (news) => post({ kind: 'news', news }),
    greet: () => post({ kind: 'hello' }),
    leave: () => post({ kind: 'gone' }),
    close: () => channel.close(),
  };
}
