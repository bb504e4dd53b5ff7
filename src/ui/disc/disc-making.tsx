'use client';

import { clsx } from 'clsx';
import { Disc3, Download, ExternalLink, Printer, X } from 'lucide-react';
import { useState } from 'react';
import { BURNING, DISC_STAGE_NAMES, DISC_STAGES, MOST_COPIES, type BurnRow } from '../../core/disc/disc-making';
import type { DiscFar } from '../../server/disc/disc-service';
import type { DiscSeen } from '../../server/disc/seen-disc';
import { Button } from '../kit/button';
import { clock } from '../kit/clock';
import { NumberField } from '../kit/number-field';

interface DiscMakingProps {
  readonly seen: DiscSeen;
  readonly far: DiscFar;
  readonly path: string;
  readonly onMake: () => Promise<void>;
  readonly onStop: () => Promise<void>;
  readonly onBurn: (copies: number) => Promise<void>;
  readonly onStopBurn: (burn: string) => Promise<void>;
}

/** Whether a disc fits, the making of its image, and its copies. */
export function DiscMaking({ seen, far, path, onMake, onStop, onBurn, onStopBurn }: DiscMakingProps) {
  const isMaking = far.state === 'making';
  const hasImage = far.byteCount !== null;
  return (
    <section
      aria-label="Making it"
      className="flex w-[312px] shrink-0 flex-col gap-6 overflow-y-auto border-l border-rule bg-card px-5 py-4 scroll-more"
      data-part="disc-making"
    >
      <Fit seen={seen} />
      <div>
        <Button
          look={hasImage && !seen.isOld ? 'plain' : 'main'}
          className="h-10 w-full text-base"
          disabled={isMaking || seen.faults.length > 0}
          onClick={() => void onMake()}
          data-part="make-disc"
        >
          <Disc3 size={16} /> {hasImage ? 'Make the disc again' : 'Make the disc'}
        </Button>
        {far.problem && (
          <p role="alert" className="mt-2 text-red-deep" data-part="disc-problem">
            {far.problem}
          </p>
        )}
        {isMaking && <Progress far={far} onStop={onStop} />}
      </div>
      {hasImage && !isMaking && (
        <div data-part="disc-image">
          <h2 className="text-base font-semibold">Its image</h2>
          {seen.isOld && <p className="mt-1 text-saffron-deep">It is of what the disc was before it was changed.</p>}
          {far.report && (
            <p className="mt-1 text-soft" data-part="disc-report">
              {size(far.byteCount!)} on “{far.report.label}”. {counted(far.report.titleCount, 'film')},{' '}
              {counted(far.report.chapterCount, 'chapter')}, {counted(far.report.pageCount, 'page')} of a menu:{' '}
              {far.report.pressCount} presses of a remote were tried, and all lead where they should.
            </p>
          )}
          {far.report?.told.map((sentence) => (
            <p key={sentence} className="mt-1 text-saffron-deep">
              {sentence}
            </p>
          ))}
          <p className="mt-2 flex flex-wrap gap-x-4 gap-y-1">
            <a href={`${path}/image`} download className="flex items-center gap-1.5 underline" data-part="take-image">
              <Download size={14} /> Download it
            </a>
            <a
              href={`${path}/label`}
              target="_blank"
              rel="noreferrer"
              className="flex items-center gap-1.5 underline"
              data-part="disc-label"
            >
              <Printer size={14} /> Label
            </a>
          </p>
        </div>
      )}
      {hasImage && !isMaking && <Copies far={far} onBurn={onBurn} onStopBurn={onStopBurn} />}
    </section>
  );
}

function Fit({ seen: { fit, faults, told } }: { seen: DiscSeen }) {
  const share = fit ? Math.min(1, fit.byteCount / fit.roomBytes) : 0;
  return (
    <div data-part="disc-fit">
      <h2 className="text-base font-semibold">Does it fit?</h2>
      {fit && !fit.fault && (
        <>
          <p className="mt-1">
            At most {size(fit.byteCount)} of {size(fit.roomBytes)}
          </p>
          <div
            role="meter"
            aria-label="How full the disc is"
            aria-valuemin={0}
            aria-valuemax={100}
            aria-valuenow={Math.round(share * 100)}
            className="mt-1.5 h-2 overflow-hidden rounded-full bg-rule"
          >
            <div
              className={clsx('h-full', share > 0.97 ? 'bg-saffron' : 'bg-moss')}
              style={{ width: `${share * 100}%` }}
            />
          </div>
          <p className="mt-1.5 text-soft">
            Its pictures will be <b className="font-semibold text-ink">{fit.quality}</b>, at{' '}
            {(fit.pictureKbits / 1000).toFixed(1)} Mbit a second.
          </p>
        </>
      )}
      {faults.map((fault) => (
        <p key={fault} role="alert" className="mt-1.5 text-red-deep">
          {fault}
        </p>
      ))}
      {told.map((sentence) => (
        <p key={sentence} className="mt-1.5 text-saffron-deep">
          {sentence}
        </p>
      ))}
    </div>
  );
}

function Progress({ far: { progress }, onStop }: { far: DiscFar; onStop: () => Promise<void> }) {
  const at = progress ? DISC_STAGES.indexOf(progress.stage) : -1;
  return (
    <div className="mt-3" role="status" data-part="disc-progress" data-stage={progress?.stage ?? ''}>
      <ol className="flex flex-col gap-1.5">
        {DISC_STAGES.map((stage, index) => (
          <li key={stage} className={index <= at ? '' : 'text-soft'}>
            <span className="flex justify-between gap-2">
              {DISC_STAGE_NAMES[stage]}
              <span className="tabular text-soft">{index < at ? 'done' : index === at ? farOf(progress!) : ''}</span>
            </span>
            {index === at && (
              <progress
                max={1}
                value={progress!.share}
                aria-label={DISC_STAGE_NAMES[stage]}
                className="h-1.5 w-full accent-red"
              />
            )}
          </li>
        ))}
      </ol>
      {at < 0 && <p className="text-soft">It waits for its turn.</p>}
      <Button className="mt-2" onClick={() => void onStop()} data-part="stop-disc">
        <X size={14} /> Stop
      </Button>
    </div>
  );
}

function farOf({ share, leftMs }: NonNullable<DiscFar['progress']>): string {
  const percent = `${Math.round(share * 100)} %`;
  return leftMs === null || leftMs < 1500 ? percent : `${percent}, ${clock(leftMs)} left`;
}

function Copies({
  far: { burns, driveDoor },
  onBurn,
  onStopBurn,
}: {
  far: DiscFar;
  onBurn: (copies: number) => Promise<void>;
  onStopBurn: (burn: string) => Promise<void>;
}) {
  const [copies, setCopies] = useState(1);
  return (
    <div data-part="copies">
      <h2 className="text-base font-semibold">Copies</h2>
      <p className="mt-1 text-soft">
        Each is written, read back and compared. Then the tray opens for the next; nothing is encoded again.
      </p>
      <div className="mt-2 flex items-center gap-2">
        <NumberField
          label="How many copies"
          value={copies}
          min={1}
          max={MOST_COPIES}
          step={1}
          digits={0}
          onCommit={(value) => setCopies(Math.round(value))}
        />
        <Button onClick={() => void onBurn(copies)} data-part="burn">
          Burn {copies === 1 ? 'one' : copies}
        </Button>
        {driveDoor && (
          <a
            href={driveDoor}
            target="_blank"
            rel="noreferrer"
            className="ml-auto flex items-center gap-1.5 text-soft hover:text-ink"
            data-part="drive-door"
          >
            <ExternalLink size={14} /> The drive
          </a>
        )}
      </div>
      <ul className="mt-3 flex flex-col gap-2">
        {burns.map((burn) => (
          <Copy key={burn.id} burn={burn} onStop={() => onStopBurn(burn.id)} />
        ))}
      </ul>
    </div>
  );
}

const BURN_WORDS: Readonly<Record<BurnRow['state'], string>> = {
  waits: 'waits',
  writing: 'is written',
  checking: 'is read back and compared',
  done: 'is good',
  failed: 'is no good',
  stopped: 'was stopped',
};

function Copy({ burn, onStop }: { burn: BurnRow; onStop: () => Promise<void> }) {
  const { state, share, serial, problem } = burn;
  const isOver = !BURNING.includes(state);
  return (
    <li className="border-t border-rule pt-2" data-part="copy" data-state={state}>
      <p className="flex items-baseline gap-2">
        <b className="font-semibold">{serial ?? 'A disc'}</b>
        <span className={clsx(state === 'done' ? 'text-moss' : state === 'failed' ? 'text-red-deep' : 'text-soft')}>
          {BURN_WORDS[state]}
        </span>
        {!isOver && state !== 'waits' && <span className="tabular text-soft">{Math.round(share * 100)} %</span>}
        {!isOver && (
          <Button
            look="quiet"
            square
            className="ml-auto size-6"
            aria-label="Stop this copy"
            onClick={() => void onStop()}
          >
            <X size={13} />
          </Button>
        )}
      </p>
      {!isOver && state !== 'waits' && (
        <progress max={1} value={share} aria-label={BURN_WORDS[state]} className="h-1.5 w-full accent-red" />
      )}
      {problem && <p className={state === 'failed' ? 'text-red-deep' : 'text-soft'}>{problem}</p>}
    </li>
  );
}

const counted = (count: number, what: string) => `${count} ${what}${count === 1 ? '' : 's'}`;

function size(bytes: number): string {
  return bytes < 1e9 ? `${Math.round(bytes / 1e6)} MB` : `${(bytes / 1e9).toFixed(2)} GB`;
}
