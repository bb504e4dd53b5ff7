'use client';

import { Plus } from 'lucide-react';
import { useState } from 'react';
import type { Framing } from '../../core/motion/framing';
import type { AssetId } from '../../core/show/ids';
import type { Light } from '../../core/show/light';
import { Amount } from '../kit/amount';
import { Button } from '../kit/button';
import { CroppedPrint } from '../kit/cropped-print';

type RedEye = NonNullable<Light['redEyes']>[number];

interface RedEyesProps {
  readonly assetId: AssetId;
  readonly picture: { readonly widthPx: number; readonly heightPx: number };
  readonly shown: { readonly widthPx: number; readonly heightPx: number };
  readonly crop: Framing | undefined;
  readonly eyes: readonly RedEye[];
  readonly onChange: (eyes: readonly RedEye[], joins?: string) => void;
}

const MOST = { widthPx: 380, heightPx: 250 };
const USUAL_RADIUS = 0.012;
const STEP = 0.004;

/** Marks where red eyes are: a click puts a ring, arrow keys move it, Delete takes it away. */
export function RedEyes({ assetId, picture, shown, crop, eyes, onChange }: RedEyesProps) {
  const [at, setAt] = useState(0);
  const scale = Math.min(MOST.widthPx / shown.widthPx, MOST.heightPx / shown.heightPx);
  const [widthPx, heightPx] = [shown.widthPx * scale, shown.heightPx * scale];
  const add = (x: number, y: number) => {
    onChange([...eyes, { x, y, radius: eyes[at]?.radius ?? USUAL_RADIUS }]);
    setAt(eyes.length);
  };
  const move = (index: number, part: Partial<RedEye>) =>
    onChange(
      eyes.map((eye, other) => (other === index ? { ...eye, ...part } : eye)),
      `red eye ${index}`,
    );
  const remove = (index: number) => {
    onChange(eyes.filter((_, other) => other !== index));
    setAt(0);
  };
  const hold = (value: number) => Math.min(1, Math.max(0, value));
  const chosen = eyes[Math.min(at, eyes.length - 1)];
  return (
    <div className="flex flex-col gap-2" data-part="red-eyes">
      <div
        className="relative cursor-crosshair bg-surround"
        style={{ width: widthPx, height: heightPx }}
        onClick={(event) => {
          const box = event.currentTarget.getBoundingClientRect();
          add((event.clientX - box.left) / box.width, (event.clientY - box.top) / box.height);
        }}
      >
        <CroppedPrint
          assetId={assetId}
          picture={picture}
          crop={crop}
          widthPx={widthPx}
          heightPx={heightPx}
          printPx={960}
        />
        {eyes.map((eye, index) => (
          <button
            key={index}
            type="button"
            aria-label={`Red eye ${index + 1}: arrows move it, Delete takes it away`}
            aria-pressed={index === at}
            onClick={(event) => {
              event.stopPropagation();
              setAt(index);
            }}
            onKeyDown={(event) => {
              const step = (
                { ArrowLeft: [-STEP, 0], ArrowRight: [STEP, 0], ArrowUp: [0, -STEP], ArrowDown: [0, STEP] } as Record<
                  string,
                  readonly [number, number]
                >
              )[event.key];
              if (!step && event.key !== 'Delete' && event.key !== 'Backspace') return;
              event.preventDefault();
              event.stopPropagation();
              if (step) move(index, { x: hold(eye.x + step[0]), y: hold(eye.y + step[1]) });
              else remove(index);
            }}
            className="absolute -translate-1/2 rounded-full border-2 border-red outline outline-white aria-pressed:border-white aria-pressed:outline-red"
            style={{
              left: eye.x * widthPx,
              top: eye.y * heightPx,
              width: Math.max(10, 2 * eye.radius * widthPx),
              height: Math.max(10, 2 * eye.radius * widthPx),
            }}
          />
        ))}
      </div>
      <div className="flex flex-wrap items-center gap-2">
        <Button className="h-7" onClick={() => add(0.5, 0.5)}>
          <Plus size={13} /> Another ring
        </Button>
        {chosen && (
          <Button className="h-7" onClick={() => remove(Math.min(at, eyes.length - 1))}>
            Take this one away
          </Button>
        )}
        <span className="text-soft">{eyes.length === 0 ? 'Click on each red eye.' : `${eyes.length} marked`}</span>
      </div>
      {chosen && (
        <Amount
          label="Size of the ring"
          value={chosen.radius}
          min={0.003}
          max={0.06}
          rest={USUAL_RADIUS}
          shown={`${(100 * chosen.radius).toFixed(1)} %`}
          onChange={(radius) => move(Math.min(at, eyes.length - 1), { radius })}
        />
      )}
    </div>
  );
}
