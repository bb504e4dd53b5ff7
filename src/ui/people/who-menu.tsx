'use client';

import { ChevronDown } from 'lucide-react';
import Link from 'next/link';
import { DropdownMenu } from 'radix-ui';
import { Button } from '../kit/button';
import { callServer } from '../show/call-server';
import { useMe } from './me';
import { sayFault } from '../show/say-fault';

const ITEM = 'block cursor-default rounded-md px-2.5 py-1.5 outline-none data-[highlighted]:bg-rule/60';

/** Who one is, and what belongs to that. */
export function WhoMenu() {
  const { name, role } = useMe();
  const leave = async () => {
    try {
      await callServer('DELETE', '/api/v1/session');
      location.assign('/sign-in');
    } catch (error) {
      sayFault(error);
    }
  };
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger asChild>
        <Button look="quiet" className="max-w-48" data-part="who">
          <span className="truncate">{name}</span> <ChevronDown size={13} className="shrink-0" />
        </Button>
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content
          align="end"
          sideOffset={4}
          className="z-30 w-52 rounded-lg border border-rule bg-card p-1.5 shadow-raised"
        >
          <DropdownMenu.Item asChild>
            <Link href="/account" className={ITEM}>
              Your account
            </Link>
          </DropdownMenu.Item>
          {role !== 'guest' && (
            <DropdownMenu.Item asChild>
              <Link href="/people" className={ITEM}>
                People of the studio
              </Link>
            </DropdownMenu.Item>
          )}
          <DropdownMenu.Separator className="my-1 border-t border-rule" />
          <DropdownMenu.Item onSelect={() => void leave()} className={ITEM}>
            Sign out
          </DropdownMenu.Item>
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}
