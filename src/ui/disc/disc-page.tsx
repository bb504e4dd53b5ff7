'use client';

import { Trash2 } from 'lucide-react';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useCallback, useEffect, useRef, useState } from 'react';
import { toast } from 'sonner';
import { BURNING } from '../../core/disc/disc-making';
import type { DiscChange } from '../../core/disc/disc-plan';
import type { DiscFar } from '../../server/disc/disc-service';
import type { DiscSeen } from '../../server/disc/seen-disc';
import { Bird } from '../kit/bird';
import { Button } from '../kit/button';
import { RoomSwitch } from '../kit/room-switch';
import { Toasts } from '../kit/toasts';
import { WhoMenu } from '../people/who-menu';
import { callServer } from '../show/call-server';
import { sayFault } from '../show/say-fault';
import { useAnswer } from '../show/use-answer';
import { DiscMaking } from './disc-making';
import { DiscPlanPanel } from './disc-plan-panel';
import { Television } from './television';
import { TypedLine } from './typed-line';

const LOOK_EVERY_MS = 700;

/** A video disc: what is on it, its menu as a television shows it, and the making of it. */
export function DiscPage({ first, firstFar }: { first: DiscSeen; firstFar: DiscFar }) {
  const router = useRouter();
  const path = `/api/v1/discs/${first.id}`;
  const { answer, refresh } = useAnswer<DiscSeen>(path, { hears: 'focus', quiet: true });
  const [far, setFar] = useState(firstFar);
  const seen = answer ?? first;
  const { title } = seen.plan;
  const isMaking = far.state === 'making';
  const isBusy = isMaking || far.burns.some(({ state }) => BURNING.includes(state));
  const look = useRef(0);
  const lookNow = useCallback(async () => {
    const mine = (look.current += 1);
    await callServer<DiscFar>('GET', `${path}/far`).then(
      (latest) => {
        if (mine === look.current) setFar(latest);
      },
      () => {},
    );
  }, [path]);
  useEffect(() => {
    if (!isBusy) return;
    const timer = setInterval(() => void lookNow(), LOOK_EVERY_MS);
    return () => clearInterval(timer);
  }, [isBusy, lookNow]);
  useEffect(() => {
    if (!isMaking) void refresh();
  }, [isMaking, refresh]);
  const act = async (work: () => Promise<unknown>) => {
    try {
      await work();
    } catch (error) {
      sayFault(error);
    }
    await Promise.all([refresh(), lookNow()]);
  };
  const change = (what: DiscChange) => act(() => callServer('PATCH', path, what));
  const remove = async () => {
    try {
      await callServer('DELETE', path);
      toast(`The disc “${title}” was taken away. Its shows stay on the shelf.`);
      router.push('/');
    } catch (error) {
      sayFault(error);
    }
  };

  return (
    <div className="flex h-dvh flex-col" data-part="disc" data-state={far.state}>
      <header className="flex min-h-16 shrink-0 flex-wrap items-center gap-3 border-b border-rule bg-card px-6">
        <Link href="/" aria-label="Shelf" className="flex items-center gap-3 text-soft hover:text-ink">
          <Bird className="size-10" /> Shelf <span aria-hidden="true">╱</span>
        </Link>
        <h1 className="sr-only">Disc: {title}</h1>
        <TypedLine
          key={title}
          label="Title of the disc"
          value={title}
          needed
          className="max-w-[26rem] min-w-24 [field-sizing:content] border-transparent bg-transparent font-display text-lg font-semibold hover:border-rule focus:border-rule"
          onChange={(typed) => void change({ title: typed })}
        />
        <span className="text-soft">a video disc</span>
        <span className="ml-auto flex items-center gap-2">
          <Button look="quiet" square aria-label="Take this disc away" disabled={isBusy} onClick={() => void remove()}>
            <Trash2 size={15} />
          </Button>
          <RoomSwitch />
          <WhoMenu />
        </span>
      </header>
      <div className="flex min-h-0 flex-1">
        <DiscPlanPanel seen={seen} isMaking={isMaking} onChange={change} />
        <Television seen={seen} />
        <DiscMaking
          seen={seen}
          far={far}
          path={path}
          onMake={() => act(() => callServer('POST', `${path}/making`))}
          onStop={() => act(() => callServer('DELETE', `${path}/making`))}
          onBurn={(copies) => act(() => callServer('POST', `${path}/burns`, { copies }))}
          onStopBurn={(burn) => act(() => callServer('DELETE', `${path}/burns/${burn}`))}
        />
      </div>
      <Toasts />
    </div>
  );
}
