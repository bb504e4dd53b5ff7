'use client';

import { useEffect, useState } from 'react';

const COLOURS = ['#ffffff', '#f2d21b', '#19c3d6', '#2fae4a', '#c23cc0', '#d8371f', '#2a4bd0', '#000000'];
const GREYS = Array.from({ length: 11 }, (_, at) => `rgb(${[0, 1, 2].map(() => Math.round(25.5 * at)).join(',')})`);
const BEAT_MS = 1600;
const TONE_HZ = { left: 440, right: 660 };

/** For setting up a hall: whether all four edges are seen, colours and greys are told apart, lines are sharp, and which side sounds. */
export function TestScreen() {
  const [side, setSide] = useState<'left' | 'right'>('left');
  useEffect(() => {
    const timer = setInterval(() => setSide((before) => (before === 'left' ? 'right' : 'left')), BEAT_MS);
    return () => clearInterval(timer);
  }, []);
  useEffect(() => {
    const context = new AudioContext();
    const tone = context.createOscillator();
    const level = context.createGain();
    const pan = context.createStereoPanner();
    tone.frequency.value = TONE_HZ[side];
    pan.pan.value = side === 'left' ? -1 : 1;
    const t = context.currentTime;
    level.gain.setValueAtTime(0, t);
    level.gain.linearRampToValueAtTime(0.16, t + 0.03);
    level.gain.setValueAtTime(0.16, t + 0.5);
    level.gain.linearRampToValueAtTime(0, t + 0.6);
    tone.connect(level).connect(pan).connect(context.destination);
    tone.start(t);
    tone.stop(t + 0.62);
    return () => void context.close();
  }, [side]);
  return (
    <div className="absolute inset-0 bg-[#3b3b3b]" data-part="test-screen">
      <svg viewBox="0 0 1600 900" preserveAspectRatio="none" className="absolute inset-0 size-full" aria-hidden="true">
        <rect x="1" y="1" width="1598" height="898" fill="none" stroke="#fff" strokeWidth="2" />
        <rect
          x="80"
          y="45"
          width="1440"
          height="810"
          fill="none"
          stroke="#fff"
          strokeWidth="1.5"
          strokeDasharray="10 8"
        />
        {Array.from({ length: 15 }, (_, at) => (
          <line
            key={`v${at}`}
            x1={100 * (at + 1)}
            x2={100 * (at + 1)}
            y1="0"
            y2="900"
            stroke="#fff"
            strokeOpacity="0.14"
          />
        ))}
        {Array.from({ length: 8 }, (_, at) => (
          <line
            key={`h${at}`}
            x1="0"
            x2="1600"
            y1={100 * (at + 1)}
            y2={100 * (at + 1)}
            stroke="#fff"
            strokeOpacity="0.14"
          />
        ))}
        {COLOURS.map((colour, at) => (
          <rect key={colour} x={400 + 100 * at} y="250" width="100" height="160" fill={colour} />
        ))}
        {GREYS.map((grey, at) => (
          <rect key={grey} x={400 + (800 / 11) * at} y="430" width={800 / 11 + 0.5} height="90" fill={grey} />
        ))}
        {Array.from({ length: 40 }, (_, at) => (
          <rect key={`l${at}`} x={400 + at * 8} y="540" width="4" height="60" fill="#fff" />
        ))}
        {Array.from({ length: 80 }, (_, at) => (
          <rect key={`m${at}`} x={880 + at * 4} y="540" width="2" height="60" fill="#fff" />
        ))}
      </svg>
      <svg viewBox="0 0 100 100" className="absolute inset-0 m-auto h-[96%]" aria-hidden="true">
        <circle cx="50" cy="50" r="48" fill="none" stroke="#fff" strokeWidth="0.25" />
      </svg>
      {(['left', 'right'] as const).map((of) => (
        <p
          key={of}
          data-part={`sounds-${of}`}
          data-on={side === of}
          className={`absolute top-1/2 -translate-y-1/2 rounded-lg px-5 py-3 font-display text-[28px] font-semibold ${of === 'left' ? 'left-[8%]' : 'right-[8%]'} ${side === of ? 'bg-lamp text-black' : 'bg-black/50 text-lamp-soft'}`}
        >
          {of}
        </p>
      ))}
      <p className="absolute inset-x-0 bottom-[10%] mx-auto w-fit rounded-md bg-[#3b3b3b] px-4 py-1 text-center text-base text-lamp">
        All four edges to be seen · the circle round · eleven greys and eight colours told apart · the fine lines sharp
      </p>
    </div>
  );
}
