import type { ScreeningLook } from '../../../core/screening/screening-look';

/** The page itself: what is there before any script runs. */
export function pageHtml(title: string, look: ScreeningLook): string {
  const name = escaped(title);
  const colours = Object.entries({
    ground: look.ground,
    letters: look.letters,
    soft: look.soft,
    rule: look.rule,
    accent: look.accent,
    'on-accent': look.onAccent,
  })
    .map(([part, colour]) => `--${part}:${colour}`)
    .join(';');
  return `<!doctype html>
<html lang="en">
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1">
<title>${name}</title>
<style>
:root{${colours};color-scheme:dark}
${STYLE}
</style>
</head>
<body>
<main id="stage" aria-label="${name}">
<h1>${name}</h1>
<div id="frame"></div>
<p id="caption" aria-hidden="true" hidden></p>
<p id="says" role="status">One moment …</p>
<noscript><p class="plain">This page draws its pictures itself. Please allow it to use JavaScript.</p></noscript>
<button id="begin" type="button" hidden>Play</button>
</main>
<div id="bar" hidden>
<input id="moment" type="range" min="0" max="1" step="1" value="0" aria-label="Moment">
<div id="marks" aria-hidden="true"></div>
<div id="hands">
<button id="play" type="button">Play</button>
<span id="clock"></span>
<span id="now"></span>
<label id="chapters" hidden>Chapter <select></select></label>
<label id="captions" hidden>Captions <select></select></label>
<label id="sound" hidden>Sound <input type="range" min="0" max="100" step="5" value="100" aria-label="How loud"></label>
<button id="whole" type="button">Whole screen</button>
</div>
</div>
<script src="player.js"></script>
</body>
</html>
`;
}

export const PAGE_NOTE = `To watch: unpack this folder, then open “index.html” in it with any browser. No connection is needed.

Space plays and pauses, the arrows go back and on, Page Up and Page Down go from chapter to chapter, F fills the screen, C shows captions, M takes the sound away.
`;

const escaped = (text: string) =>
  text.replace(/[&<>"]/g, (sign) => ({ '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' })[sign]!);

const STYLE = `*{box-sizing:border-box}
html,body{margin:0;height:100%;background:var(--ground);color:var(--letters);font:15px/1.4 system-ui,sans-serif}
body{display:flex;flex-direction:column;overflow:hidden}
#stage{position:relative;flex:1;min-height:0;display:grid;place-items:center;overflow:hidden}
h1,.plain{margin:0;padding:24px;font-size:28px;font-weight:600;text-align:center}
.drawn h1{position:absolute;width:1px;height:1px;overflow:hidden;clip-path:inset(50%);padding:0}
#frame{position:absolute;inset:0;display:grid;place-items:center}
#frame canvas{display:block}
#caption{position:absolute;left:50%;bottom:5%;transform:translateX(-50%);margin:0;max-width:80%;padding:.15em .6em;border-radius:4px;background:rgb(0 0 0/.72);color:#fff;font-size:clamp(16px,2.6vw,34px);text-align:center;white-space:pre-line}
#says{position:absolute;left:24px;top:20px;margin:0;padding:4px 12px;border-radius:6px;background:rgb(0 0 0/.6);color:#fff}
#says:empty{display:none}
button,select{font:inherit;color:var(--letters);background:transparent;border:1px solid var(--rule);border-radius:6px;min-height:36px;padding:0 14px}
select{background:var(--ground);max-width:16em}
button:hover,select:hover{border-color:var(--soft)}
:focus-visible{outline:2px solid var(--accent);outline-offset:2px}
#begin{position:absolute;background:var(--accent);color:var(--on-accent);border:0;min-height:56px;padding:0 36px;font-size:20px;font-weight:600;box-shadow:0 8px 32px rgb(0 0 0/.5)}
#bar{position:relative;padding:0 20px 12px;border-top:1px solid var(--rule);background:var(--ground)}
input[type=range]{appearance:none;margin:0;height:28px;background:linear-gradient(var(--accent) 0 0) left/var(--done,100%) 4px no-repeat,linear-gradient(var(--rule) 0 0) center/100% 4px no-repeat;cursor:pointer}
input[type=range]::-webkit-slider-thumb{appearance:none;width:16px;height:16px;border-radius:8px;background:var(--accent);border:2px solid var(--ground)}
input[type=range]::-moz-range-thumb{width:12px;height:12px;border-radius:8px;background:var(--accent);border:2px solid var(--ground)}
#moment{display:block;width:100%}
#marks{position:absolute;left:28px;right:28px;top:0;height:6px;pointer-events:none}
#marks i{position:absolute;top:0;width:2px;height:6px;background:var(--soft)}
#hands{display:flex;flex-wrap:wrap;align-items:center;gap:8px 16px}
#play{min-width:84px}
#clock{font-variant-numeric:tabular-nums;color:var(--soft)}
#now{flex:1;min-width:0;overflow:hidden;text-overflow:ellipsis;white-space:nowrap}
#hands label{display:flex;align-items:center;gap:8px;color:var(--soft)}
#sound input{width:96px}
[hidden]{display:none!important}
:fullscreen #bar{position:absolute;left:0;right:0;bottom:0;border:0;background:color-mix(in srgb,var(--ground) 82%,transparent);transition:opacity .25s}
:fullscreen.still #bar:not(:focus-within){opacity:0}
:fullscreen.still{cursor:none}
@media (max-width:640px){#now{display:none}#bar{padding:0 12px 10px}}
@media (prefers-reduced-motion:reduce){:fullscreen #bar{transition:none}}`;
