/** One sheet for all stand-ins; each has its own ground and accent. */
export const STYLE = `
@font-face{font-family:Display;src:url(/fonts/bricolage-grotesque-latin-wght-normal.ttf);font-weight:200 800}
@font-face{font-family:Text;src:url(/fonts/instrument-sans-latin-wght-normal.ttf);font-weight:400 700}
:root{--ground:#efe7d9;--sheet:#fcfaf5;--ink:#211d19;--soft:#655d53;--rule:#d8cfbf;--accent:#96301a;--on:#fff}
.video-host{--ground:#12171b;--sheet:#1b2228;--ink:#eef2f4;--soft:#a4b0b8;--rule:#33404a;--accent:#8fc6e0;--on:#0d1418}
.disc-drive{--ground:#e3e8e4;--sheet:#f8faf8;--ink:#1d2420;--soft:#59645d;--rule:#c9d2cb;--accent:#2f5d46;--on:#fff}
.social-page{--ground:#f0ecf2;--sheet:#fffdff;--ink:#241c26;--soft:#665a69;--rule:#ddd3e0;--accent:#6c3b64;--on:#fff}
*{box-sizing:border-box}
body{margin:0;min-height:100vh;background:var(--ground);color:var(--ink);font:15px/1.5 Text,sans-serif}
h1,h2{font-family:Display,sans-serif;font-weight:600;line-height:1.15;margin:0 0 12px}
h1{font-size:28px}h2{font-size:20px}
p{margin:0 0 10px}.quiet,small{color:var(--soft)}small{font-size:13px}
a{color:var(--accent)}
header{display:flex;gap:24px;align-items:center;justify-content:space-between;padding:14px 28px;border-bottom:1px solid var(--rule);flex-wrap:wrap}
header p{margin:0;font-size:13px;color:var(--soft)}
nav{display:flex;gap:22px}nav a{font-family:Display,sans-serif;font-size:15px;text-decoration:none;color:var(--soft);padding:4px 0}
nav a[aria-current]{color:var(--ink);box-shadow:0 2px 0 var(--accent)}
main{max-width:1180px;margin:0 auto;padding:28px}
button,.button{font:inherit;font-weight:600;padding:7px 15px;border:1px solid var(--rule);border-radius:6px;background:var(--sheet);color:var(--ink);cursor:pointer;text-decoration:none;display:inline-block}
button:hover,.button:hover{border-color:var(--soft)}
button.main{background:var(--accent);color:var(--on);border-color:transparent}
:focus-visible{outline:2px solid var(--accent);outline-offset:2px}
input,select{font:inherit;color:inherit;background:var(--ground);border:1px solid var(--rule);border-radius:6px;padding:5px 9px}
input[type=number]{width:5.5em}
.two{display:grid;grid-template-columns:340px minmax(0,1fr);gap:28px;align-items:start}
.sheet{background:var(--sheet);border:1px solid var(--rule);border-radius:8px;overflow:hidden}
.pad{padding:18px 22px}
ul.rows{list-style:none;margin:0;padding:0}
ul.rows li+li{border-top:1px solid var(--rule)}
ul.rows .row{display:block;padding:12px 16px;text-decoration:none;color:inherit}
ul.rows a.row:hover{background:color-mix(in srgb,var(--accent) 7%,transparent)}
ul.rows a[aria-current]{box-shadow:inset 4px 0 0 var(--accent);background:color-mix(in srgb,var(--accent) 9%,transparent)}
.row b,.row span{display:block;overflow:hidden;text-overflow:ellipsis;white-space:nowrap}
.row span{color:var(--soft);font-size:13px}
dl{display:grid;grid-template-columns:5em 1fr;gap:2px 14px;margin:0 0 14px}dt{color:var(--soft)}dd{margin:0;overflow-wrap:anywhere}
iframe{display:block;width:100%;height:620px;border:0;border-top:1px solid var(--rule);background:#fff}
pre{margin:0;padding:18px 22px;border-top:1px solid var(--rule);white-space:pre-wrap;overflow-wrap:anywhere;font-size:13px}
.switches{margin-top:28px;padding-top:18px;border-top:1px solid var(--rule);display:flex;gap:10px 26px;flex-wrap:wrap;align-items:end}
.switches label{display:flex;flex-direction:column;gap:3px;font-size:13px;color:var(--soft)}
.grid{display:grid;grid-template-columns:repeat(auto-fill,minmax(300px,1fr));gap:22px}
video{display:block;width:100%;aspect-ratio:16/9;background:#000}
.line{display:flex;gap:10px;align-items:center;flex-wrap:wrap}
.line form{margin:0}
progress{width:100%;accent-color:var(--accent)}
.card{display:block;border:1px solid var(--rule);border-radius:8px;overflow:hidden;text-decoration:none;color:inherit;background:var(--ground)}
.card img{display:block;width:100%;aspect-ratio:16/9;object-fit:cover}
.card span{display:block;padding:10px 14px}
.post{max-width:620px;margin:0 auto 22px}
.stamp{float:right;border:2px solid var(--accent);color:var(--accent);border-radius:4px;padding:2px 8px;font:600 12px Display,sans-serif;transform:rotate(4deg);text-transform:uppercase;letter-spacing:.06em}
.desk{max-width:520px;margin:40px auto}
.desk label{display:flex;flex-direction:column;gap:4px;margin:16px 0}
@media(max-width:760px){.two{grid-template-columns:1fr}main{padding:18px}.stamp{float:none;display:inline-block;margin:0 0 12px}}
`;
