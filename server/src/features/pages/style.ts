/** The look of public pages: the application's colours by day, by night where the system is dark, and plain on paper. */
export const STYLE = `
@font-face{font-family:Atkinson;src:url(/p-assets/regular.woff2) format("woff2");font-weight:400;font-display:swap}
@font-face{font-family:Atkinson;src:url(/p-assets/bold.woff2) format("woff2");font-weight:700;font-display:swap}
:root{--ground:#f3eee4;--card:#fffcf6;--pale:#efe7d9;--ink:#24211c;--soft:#5c5346;--hair:#ddd2c0;--green:#2e4a3f;--brown:#8f4a17;--warn:#7a4e00;--warn-ground:#fbf0d9}
@media(prefers-color-scheme:dark){:root{--ground:#15110d;--card:#1e1812;--pale:#2a2118;--ink:#efe3d3;--soft:#bfae98;--hair:#3b3024;--green:#9cc3ac;--brown:#e2a06c;--warn:#f0c274;--warn-ground:#33260f}}
*{box-sizing:border-box}
body{margin:0;background:var(--ground);color:var(--ink);font:16px/1.5 Atkinson,system-ui,sans-serif}
main,header.top,footer{max-width:960px;margin:0 auto;padding:0 20px}
header.top{padding-top:16px}
a{color:var(--brown)}
h1{margin:.3em 0 .1em;font-size:1.9rem;line-height:1.2}
h2{margin:0 0 .4em;font-size:1.2rem}
p{margin:0 0 .5em}
section,form.ask,form.filter{margin:18px 0;padding:18px;border:1px solid var(--hair);border-radius:12px;background:var(--card)}
.soft{color:var(--soft)}.small{font-size:.9rem}.label{font-size:1.2rem;font-weight:700}
.price{font-size:1.3rem;font-weight:700}
.pictures{display:grid;grid-template-columns:repeat(auto-fill,minmax(min(320px,100%),1fr));gap:12px;margin:16px 0}
figure{margin:0}
img{display:block;width:100%;height:auto;border-radius:10px;background:var(--pale)}
figcaption{padding:4px 2px}
dl{display:grid;grid-template-columns:repeat(auto-fit,minmax(190px,1fr));gap:10px 20px;margin:0}
dt{font-size:.85rem;color:var(--soft)}dd{margin:0}
ul.plain,ol.plain{margin:0;padding:0;list-style:none}
.claim{padding:10px 0;border-top:1px solid var(--hair)}
.claim .head{display:flex;flex-wrap:wrap;justify-content:space-between;gap:2px 16px}
.caution{margin:10px 0;padding:10px 14px;border-left:4px solid var(--warn);background:var(--warn-ground)}
.kin{overflow-x:auto}
.branch{display:flex;align-items:center}
.branch>.node{flex:none;width:190px;padding:6px 10px;border:1px solid var(--hair);border-radius:8px;background:var(--pale);font-size:.9rem}
.branch>.parents{display:grid;gap:8px;margin-left:14px;padding-left:14px;border-left:2px solid var(--hair)}
svg{display:block;width:100%;height:auto}
svg text{fill:var(--soft);font-size:12px}
.grid{display:grid;grid-template-columns:repeat(auto-fill,minmax(min(260px,100%),1fr));gap:16px}
.offer{overflow:hidden;border:1px solid var(--hair);border-radius:12px;background:var(--card)}
.offer img{aspect-ratio:4/3;border-radius:0;object-fit:cover}
.offer div{padding:12px 14px}
.offer a{color:inherit;text-decoration:none}
.mark{display:inline-block;padding:1px 8px;border-radius:6px;background:var(--pale);font-size:.85rem}
form.filter{display:flex;flex-wrap:wrap;gap:12px;align-items:end}
label{display:grid;gap:3px;font-size:.9rem}
.months{width:92px}.amount{width:104px}.genes{flex:2 1 180px}.sex{flex:1 1 110px}
.apart{margin-top:18px}.lines{white-space:pre-line}.columns{columns:2 280px}
input,select,textarea{width:100%;min-height:44px;padding:8px 10px;border:1px solid var(--soft);border-radius:8px;background:var(--card);color:var(--ink);font:inherit}
input[type=checkbox]{width:22px;min-height:22px;margin:0}
label.check{grid-auto-flow:column;align-items:center;justify-content:start;min-height:44px}
button{min-height:44px;padding:8px 20px;border:0;border-radius:8px;background:var(--green);color:var(--card);font:inherit;font-weight:700;cursor:pointer}
form.ask{display:grid;gap:12px;max-width:620px}
.trap{position:absolute;left:-9999px}
.problem{color:#a3271c;font-weight:700}
@media(prefers-color-scheme:dark){.problem{color:#ff9d8a}}
.api table{width:100%;margin:0 0 .8em;border-collapse:collapse;font-size:.9rem}.api td,.api th{padding:4px 8px 4px 0;border-top:1px solid var(--hair);text-align:left;vertical-align:top;overflow-wrap:anywhere}
.api details{padding:6px 0;border-top:1px solid var(--hair)}.api summary{min-height:32px;cursor:pointer}
footer{padding-bottom:40px}
.key{overflow-wrap:anywhere}
.code{display:flex;gap:14px;align-items:center}.code svg{flex:none;width:130px}
.print-only{display:none}
@media print{body{background:none;color:#000}form,nav,.no-print{display:none!important}.print-only{display:block}section,.offer{border-color:#999;background:none;break-inside:avoid}.pictures{grid-template-columns:1fr 1fr}}
`;
